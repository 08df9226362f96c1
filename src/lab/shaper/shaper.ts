/** The lab's end of the shaper thread. */
import type { Worker } from 'node:worker_threads';
import { isBuilt, startThread } from '../thread';
import type { ShapeLog, ShapeOptions } from './socks';
import type { ShaperReply, ShaperRequest } from './worker';

export interface ShapedNetwork {
	/** Port of the SOCKS5 proxy on 127.0.0.1. */
	port: number;
	/** Cut its connections, as for a visitor who comes back later. */
	renew(): Promise<void>;
	/** End the network and hand over what it saw. Calling it again returns the same. */
	close(): Promise<ShapeLog>;
}

export class Shaper {
	#worker: Worker;
	#waiting = new Map<number, (reply: ShaperReply) => void>();
	#next = 1;

	constructor() {
		this.#worker = startThread(new URL(isBuilt ? './shaper.mjs' : './worker.ts', import.meta.url));
		this.#worker.on('message', (reply: ShaperReply) => {
			this.#waiting.get(reply.id)?.(reply);
			this.#waiting.delete(reply.id);
		});
		this.#worker.on('error', (error) => {
			for (const [id, settle] of this.#waiting) settle({ id, error: error.message });
			this.#waiting.clear();
		});
	}

	async open(options: ShapeOptions): Promise<ShapedNetwork> {
		const id = this.#next++;
		const { port, error } = await this.#ask({ id, open: options });
		if (port === undefined) throw new Error(`The shaped network could not be opened: ${error}`);
		let closing: Promise<ShapeLog> | null = null;
		const close = async () => (await this.#ask({ id, close: true })).log ?? { connections: [], mostOpen: 0 };
		const renew = async () => void (await this.#ask({ id, renew: true }));
		return { port, renew, close: () => (closing ??= close()) };
	}

	async stop(): Promise<void> {
		await this.#worker.terminate();
	}

	#ask(request: ShaperRequest): Promise<ShaperReply> {
		return new Promise((resolve) => {
			this.#waiting.set(request.id, resolve);
			this.#worker.postMessage(request);
		});
	}
}
