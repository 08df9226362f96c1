/** The lab's end of the rewriting server's thread. */
import type { Worker } from 'node:worker_threads';
import { isBuilt, startThread } from '../thread';
import type { RewritingLog } from './server';
import type { OpenRewriting, RewriteReply, RewriteRequest } from './worker';

export interface OpenedRewriting {
	/** On 127.0.0.1. */
	ports: { port: number; tlsPort: number };
	/** End it and hand over what it did. Calling it again returns the same. */
	close(): Promise<RewritingLog | null>;
}

type Asked<Kind> = Kind extends RewriteRequest ? Omit<Kind, 'id'> : never;

export class Rewriter {
	#worker: Worker;
	#waiting = new Map<number, (reply: RewriteReply) => void>();
	#next = 1;
	#gone = false;

	constructor() {
		this.#worker = startThread(new URL(isBuilt ? './rewrite.mjs' : './worker.ts', import.meta.url));
		this.#worker.on('message', (reply: RewriteReply) => {
			this.#waiting.get(reply.id)?.(reply);
			this.#waiting.delete(reply.id);
		});
		this.#worker.on('error', (error) => {
			for (const [id, settle] of this.#waiting) settle({ id, error: error.message });
			this.#waiting.clear();
		});
		this.#worker.on('exit', () => {
			this.#gone = true;
			for (const [id, settle] of this.#waiting) settle({ id, error: 'its thread ended' });
			this.#waiting.clear();
		});
	}

	get isGone(): boolean {
		return this.#gone;
	}

	/** SHA-256 of its public key, base64. @throws Error when the thread is gone */
	async keyHash(): Promise<string> {
		const { keyHash, error } = await this.#ask({ key: true });
		if (!keyHash) throw new Error(`The rewriting server did not start: ${error}`);
		return keyHash;
	}

	/** @throws Error when it could not be opened */
	async open(options: OpenRewriting): Promise<OpenedRewriting> {
		const id = this.#next;
		const { ports, error } = await this.#ask({ open: options });
		if (!ports) throw new Error(`The rewriting server could not be opened: ${error}`);
		let closing: Promise<RewritingLog | null> | null = null;
		const close = async () => (await this.#ask({ close: id })).log ?? null;
		return { ports, close: () => (closing ??= close()) };
	}

	async stop(): Promise<void> {
		await this.#worker.terminate();
	}

	#ask(request: Asked<RewriteRequest>): Promise<RewriteReply> {
		return new Promise((resolve) => {
			const id = this.#next++;
			this.#waiting.set(id, resolve);
			this.#worker.postMessage({ id, ...request });
		});
	}
}
