/** The lab's end of the rewriting server's thread. */
import { isBuilt } from '../thread';
import { ThreadTalk } from '../threadTalk';
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
	#thread = new ThreadTalk<Asked<RewriteRequest>, RewriteReply>(
		new URL(isBuilt ? './rewrite.mjs' : './worker.ts', import.meta.url)
	);

	get isGone(): boolean {
		return this.#thread.isGone;
	}

	/** SHA-256 of its public key, base64. @throws Error when the thread is gone */
	async keyHash(): Promise<string> {
		const { keyHash, error } = await this.#thread.ask({ key: true });
		if (!keyHash) throw new Error(`The rewriting server did not start: ${error}`);
		return keyHash;
	}

	/** @throws Error when it could not be opened */
	async open(options: OpenRewriting): Promise<OpenedRewriting> {
		const id = this.#thread.newId();
		const { ports, error } = await this.#thread.ask({ open: options }, id);
		if (!ports) throw new Error(`The rewriting server could not be opened: ${error}`);
		let closing: Promise<RewritingLog | null> | null = null;
		const close = async () => (await this.#thread.ask({ close: true }, id)).log ?? null;
		return { ports, close: () => (closing ??= close()) };
	}

	stop(): Promise<void> {
		return this.#thread.stop();
	}
}
