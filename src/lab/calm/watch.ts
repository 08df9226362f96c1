/** Watches how busy the machine is around a load. */
import type { Worker } from 'node:worker_threads';
import type { CalmSample } from '$core/load/vitals/calm';
import { isBuilt, startThread } from '../thread';
import type { WatchNews, WatchOrder } from './worker';

const ANSWER_WITHIN_MS = 4000;

export class CalmWatch {
	#worker: Worker | null = null;
	#samples: CalmSample[] = [];

	/** @param helpers processes beside this one and its children that work for the load */
	constructor(private readonly helpers: readonly number[] = []) {}

	/** Begin a new watch. */
	start(): void {
		this.#samples = [];
		this.#worker ??= this.#open();
		this.#tell('start');
	}

	/** Since the start, oldest first; the youngest is at most a tenth of a second old. */
	get samples(): readonly CalmSample[] {
		return this.#samples;
	}

	/** A sample now, and not at its time: who waits for rest knows of it earlier. */
	look(): void {
		this.#tell('look');
	}

	/** End the watch. @returns all its samples; those so far when the watch does not answer */
	async stop(): Promise<readonly CalmSample[]> {
		const worker = this.#worker;
		if (!worker) return this.#samples;
		const samples = this.#samples;
		await new Promise<void>((resolve) => {
			const late = setTimeout(resolve, ANSWER_WITHIN_MS);
			const hear = ({ last }: WatchNews) => {
				if (!last) return;
				clearTimeout(late);
				worker.off('message', hear);
				resolve();
			};
			worker.on('message', hear);
			this.#tell('stop');
		});
		return samples;
	}

	async close(): Promise<void> {
		const worker = this.#worker;
		this.#worker = null;
		await worker?.terminate();
	}

	#tell(order: WatchOrder): void {
		this.#worker?.postMessage(order);
	}

	#open(): Worker {
		const worker = startThread(new URL(isBuilt ? './calm.mjs' : './worker.ts', import.meta.url), {
			roots: [process.pid, ...this.helpers]
		});
		worker.on('message', ({ sample }: WatchNews) => void this.#samples.push(sample));
		// Without the watch a load is measured all the same, and says that it does not know.
		worker.on('error', () => (this.#worker = null));
		return worker;
	}
}
