/** Frames as the browser's compositor made them, with its own timestamps. */
import type { CDPSession } from 'playwright-core';

export interface RawFrame {
	/** Epoch ms. */
	at: number;
	/** JPEG. */
	image: Buffer;
}

/** Longest side of a kept frame in pixels. */
const LONGEST_SIDE = 400;

export class Screencast {
	readonly frames: RawFrame[] = [];

	constructor(private readonly session: CDPSession) {
		session.on('Page.screencastFrame', ({ data, metadata, sessionId }) => {
			session.send('Page.screencastFrameAck', { sessionId }).catch(() => undefined);
			if (metadata.timestamp) this.frames.push({ at: metadata.timestamp * 1000, image: Buffer.from(data, 'base64') });
		});
	}

	async start(): Promise<void> {
		const size = { maxWidth: LONGEST_SIDE, maxHeight: LONGEST_SIDE };
		await this.session.send('Page.startScreencast', { format: 'jpeg', quality: 80, everyNthFrame: 1, ...size });
	}

	async stop(): Promise<void> {
		await this.session.send('Page.stopScreencast').catch(() => undefined);
	}
}
