/** How busy the machine is with something else than the load, sample by sample. */
import type { BusySample } from '$core/load/calm';
import { processTrees, readProcessorTicks, readProcessTicks, TICK_MS } from './procStat';

const LOOK_FOR_PROCESSES_EVERY = 5;

export class CalmSampler {
	#before = readProcessorTicks();
	#own = new Map<number, number>();
	#samples = 0;

	/** @param roots processes that work for the load: the lab with its browser, the simulated web */
	constructor(private readonly roots: readonly number[]) {
		for (const pid of processTrees(roots)) this.#own.set(pid, readProcessTicks(pid)?.ticks ?? 0);
	}

	/** What happened since the sample before. */
	sample(): BusySample {
		if (this.#samples++ % LOOK_FOR_PROCESSES_EVERY === 0) this.#track();
		const now = readProcessorTicks();
		const busy = now.busy - this.#before.busy;
		const stolen = now.stolen - this.#before.stolen;
		this.#before = now;
		const own = this.#ownTicks();
		const foreignMs = Math.max(0, busy - own.ticks) * TICK_MS;
		return { busyMs: busy * TICK_MS, stolenMs: stolen * TICK_MS, foreignMs, stopped: own.stopped };
	}

	/** A process that is new since the last look has done all its work since then. */
	#track(): void {
		for (const pid of processTrees(this.roots)) if (!this.#own.has(pid)) this.#own.set(pid, 0);
	}

	#ownTicks(): { ticks: number; stopped: boolean } {
		let ticks = 0;
		let stopped = false;
		for (const [pid, before] of this.#own) {
			const now = readProcessTicks(pid);
			if (!now) this.#own.delete(pid);
			else {
				ticks += now.ticks - before;
				stopped ||= now.stopped;
				this.#own.set(pid, now.ticks);
			}
		}
		return { ticks, stopped };
	}
}
