/**
 * A thread for heavy work, from the side that asks. Every call has a deadline; a thread that hangs or ends is replaced,
 * the call that held it up is given up in words, and what waited behind it is asked again.
 */
import type { Worker } from 'node:worker_threads';
import { pathToFileURL } from 'node:url';
import { startThread } from '../../../lab/thread';
import { NotPossible } from '../base/refusal';
import type { HeavyNews } from './heavyCalls';

export interface HeavyLimits {
	/** The thread answers nothing for so long, ms: something in it does not end. */
	silentMs: number;
	/** For one call, from its beginning, ms. */
	callMs: number;
	/** How often that is looked at, ms. */
	lookMs: number;
	/** Of the thread, MB. */
	memoryMb: number;
}

const LIMITS: HeavyLimits = { silentMs: 60_000, callMs: 600_000, lookMs: 1000, memoryMb: 1536 };
/** A call that waited while the thread was replaced is asked again so often. */
const MOST_TRIES = 3;

interface Call {
	name: string;
	args: unknown[];
	tries: number;
	/** When the thread took it up, ms of the monotonic clock; null while it waits. */
	begunAt: number | null;
	resolve(result: unknown): void;
	reject(error: Error): void;
}

export class HeavyThread {
	#worker: Worker | null = null;
	#calls = new Map<number, Call>();
	#next = 1;
	#heardAt = 0;
	#timer: NodeJS.Timeout | null = null;
	readonly #limits: HeavyLimits;

	/** @param entry path of the thread's own module @param folder of the data */
	constructor(
		private readonly entry: string,
		private readonly folder: string,
		limits: Partial<HeavyLimits> = {}
	) {
		this.#limits = { ...LIMITS, ...limits };
	}

	/** @throws NotPossible as the work itself does, and when it was given up */
	call(name: string, args: unknown[]): Promise<unknown> {
		return new Promise((resolve, reject) => {
			this.#post(this.#next++, { name, args, tries: 0, begunAt: null, resolve, reject });
			this.#timer ??= setInterval(() => this.#look(), this.#limits.lookMs).unref();
		});
	}

	async end(): Promise<void> {
		this.#rest();
		await this.#worker?.terminate();
		this.#worker = null;
	}

	#post(id: number, call: Call): void {
		this.#worker ??= this.#start();
		this.#calls.set(id, { ...call, tries: call.tries + 1, begunAt: null });
		this.#worker.postMessage({ id, name: call.name, args: call.args });
	}

	#start(): Worker {
		this.#heardAt = performance.now();
		const { folder } = this;
		const resourceLimits = { maxOldGenerationSizeMb: this.#limits.memoryMb };
		const worker = startThread(pathToFileURL(this.entry), { folder }, { resourceLimits });
		worker.on('message', (news: HeavyNews) => this.#hear(news));
		worker.on('error', (error) => {
			if (worker === this.#worker) this.#replace(this.#newestBegun(), error);
		});
		return worker;
	}

	#hear(news: HeavyNews): void {
		this.#heardAt = performance.now();
		if ('alive' in news) return;
		const call = this.#calls.get(news.id);
		if (!call) return;
		if ('begun' in news) {
			call.begunAt = performance.now();
			return;
		}
		this.#calls.delete(news.id);
		if (this.#calls.size === 0) this.#rest();
		if ('result' in news) call.resolve(news.result);
		else if ('refused' in news)
			call.reject(new NotPossible(news.refused.status, news.refused.message, news.refused.path));
		else call.reject(Object.assign(new Error(news.error), { code: news.code }));
	}

	#rest(): void {
		if (this.#timer) clearInterval(this.#timer);
		this.#timer = null;
	}

	#look(): void {
		const now = performance.now();
		const late = [...this.#calls].find(([, { begunAt }]) => begunAt !== null && now - begunAt > this.#limits.callMs);
		if (late) return this.#replace(late[0]);
		if (now - this.#heardAt > this.#limits.silentMs) return this.#replace(this.#newestBegun());
		this.#worker?.postMessage('alive?');
	}

	/** What was taken up last is what the thread hangs in. */
	#newestBegun(): number | null {
		const begun = [...this.#calls].filter(([, { begunAt }]) => begunAt !== null);
		return begun.sort(([, a], [, b]) => b.begunAt! - a.begunAt!)[0]?.[0] ?? null;
	}

	/** @param culprit the call that is given up; null where none was taken up @param error why the thread ended */
	#replace(culprit: number | null, error: Error | null = null): void {
		const ended = this.#worker;
		this.#worker = null;
		void ended?.terminate();
		const calls = [...this.#calls];
		this.#calls.clear();
		for (const [id, call] of calls) {
			if (id === culprit) call.reject(givenUp(error));
			else if (call.tries >= MOST_TRIES) call.reject(error ?? givenUp(null));
			else this.#post(id, call);
		}
		if (this.#calls.size === 0) this.#rest();
	}
}

function givenUp(error: Error | null): NotPossible {
	const isMemory = (error as { code?: string } | null)?.code === 'ERR_WORKER_OUT_OF_MEMORY';
	const why = isMemory ? 'it takes more memory than Zafra gives it' : 'it came to no end';
	return new NotPossible(
		422,
		`Work on this was given up: ${why}. Nothing was changed. If a file was sent, it is larger or built deeper than what it claims to be.`
	);
}
