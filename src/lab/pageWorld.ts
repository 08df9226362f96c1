/** The lab's own world of a page: it sees the page's elements and entries; the page neither sees nor changes it. */
import type { CDPSession } from 'playwright-core';
import { failure } from './failure';
import { pageProgram } from './page/bundle';
import { WORLD, type InPage } from './page/inPage';

/** What is asked there. */
const CALL = '(name, args) => globalThis.zafra[name](...args)';
/** What Chromium answers once the document that was asked has gone. */
const LOST_WORLD = /Cannot find context|Execution context was destroyed/;

/** The document that was asked has gone. */
class WorldLost extends Error {}

export class PageWorld {
	#id: number | null = null;

	/** @param ended ends the load from outside */
	constructor(
		private readonly session: CDPSession,
		mainFrameId: string,
		private readonly ended: Promise<never>
	) {
		session.on('Runtime.executionContextCreated', ({ context }) => {
			const data = context.auxData as { frameId?: string } | undefined;
			if (context.name === WORLD && data?.frameId === mainFrameId) this.#id = context.id;
		});
	}

	/**
	 * @throws Error when it throws there
	 * @throws LoadFailure for a page that moves on without end: it takes the world along in the middle of it
	 */
	async call<Name extends keyof InPage>(
		name: Name,
		...args: Parameters<InPage[Name]>
	): Promise<ReturnType<InPage[Name]>> {
		return this.#ask(name, args).catch((error: Error) => {
			throw error instanceof WorldLost ? failure('time-out', 'it moved on while it was being read') : error;
		});
	}

	/** The same of a page that is expected to move on. @returns null between two documents: there is nobody to ask */
	async callBetween<Name extends keyof InPage>(
		name: Name,
		...args: Parameters<InPage[Name]>
	): Promise<{ answer: ReturnType<InPage[Name]> } | null> {
		try {
			return { answer: await this.#ask(name, args) };
		} catch (error) {
			if (error instanceof WorldLost) return null;
			throw error;
		}
	}

	/** Into the document that is there now; once more after another one has come. */
	async addTools(): Promise<void> {
		await this.evaluate(pageProgram('tools'));
	}

	/** @param expression text that may give a promise @returns its answer as plain data */
	async evaluate(expression: string): Promise<unknown> {
		const asked = { expression, contextId: this.#existing, awaitPromise: true, returnByValue: true };
		const { result, exceptionDetails } = await Promise.race([this.session.send('Runtime.evaluate', asked), this.ended]);
		if (exceptionDetails) throw new Error(exceptionDetails.exception?.description ?? exceptionDetails.text);
		return result.value as unknown;
	}

	get #existing(): number {
		if (this.#id === null) throw failure('internal', 'the page has no world to collect in');
		return this.#id;
	}

	async #ask<Name extends keyof InPage>(name: Name, args: Parameters<InPage[Name]>): Promise<ReturnType<InPage[Name]>> {
		const evaluation = this.session.send('Runtime.callFunctionOn', {
			functionDeclaration: CALL,
			executionContextId: this.#existing,
			arguments: [{ value: name }, { value: args }],
			returnByValue: true
		});
		const answered = evaluation.catch((error: Error) => {
			throw LOST_WORLD.test(error.message) ? new WorldLost() : error;
		});
		const { result, exceptionDetails } = await Promise.race([answered, this.ended]);
		if (exceptionDetails)
			throw new Error(exceptionDetails.exception?.description?.split('\n')[0] ?? exceptionDetails.text);
		return result.value as ReturnType<InPage[Name]>;
	}
}
