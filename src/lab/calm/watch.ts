/** Watches how busy the machine is during a load. */
import { existsSync } from 'node:fs';
import type { Worker } from 'node:worker_threads';
import { busyShares, type BusySample } from '$core/load/calm';
import type { BusyShares } from '$core/load/record';
import { startThread } from '../thread';

const ANSWER_WITHIN_MS = 4000;

export class CalmWatch {
	#worker: Worker | null = null;

	/** @param helpers processes beside this one and its children that work for the load */
	constructor(private readonly helpers: readonly number[] = []) {}

	/** Begin; on a machine that does not tell, nothing happens. */
	start(): void {
		if (!existsSync('/proc/stat')) return;
		this.#worker ??= this.#open();
		this.#worker.postMessage('start');
	}

	/** @returns null when the machine does not tell */
	async stop(): Promise<BusyShares | null> {
		const worker = this.#worker;
		if (!worker) return null;
		const samples = await new Promise<BusySample[]>((resolve) => {
			const late = setTimeout(() => resolve([]), ANSWER_WITHIN_MS);
			worker.once('message', (answer: BusySample[]) => {
				clearTimeout(late);
				resolve(answer);
			});
			worker.postMessage('stop');
		});
		return busyShares(samples);
	}

	async close(): Promise<void> {
		const worker = this.#worker;
		this.#worker = null;
		await worker?.terminate();
	}

	#open(): Worker {
		const worker = startThread(new URL('./worker.ts', import.meta.url), { roots: [process.pid, ...this.helpers] });
		// Without the watch a load is measured all the same, and says that it does not know.
		worker.on('error', () => (this.#worker = null));
		return worker;
	}
}
