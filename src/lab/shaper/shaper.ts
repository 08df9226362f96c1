/** The lab's end of the shaper thread. */
import { isBuilt } from '../thread';
import { ThreadTalk } from '../threadTalk';
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

type Asked<Kind> = Kind extends ShaperRequest ? Omit<Kind, 'id'> : never;

export class Shaper {
	#thread = new ThreadTalk<Asked<ShaperRequest>, ShaperReply>(
		new URL(isBuilt ? './shaper.mjs' : './worker.ts', import.meta.url)
	);

	async open(options: ShapeOptions): Promise<ShapedNetwork> {
		const id = this.#thread.newId();
		const { port, error } = await this.#thread.ask({ open: options }, id);
		if (port === undefined) throw new Error(`The shaped network could not be opened: ${error}`);
		let closing: Promise<ShapeLog> | null = null;
		const close = async () => (await this.#thread.ask({ close: true }, id)).log ?? { connections: [], mostOpen: 0 };
		const renew = async () => void (await this.#thread.ask({ renew: true }, id));
		return { port, renew, close: () => (closing ??= close()) };
	}

	stop(): Promise<void> {
		return this.#thread.stop();
	}
}
