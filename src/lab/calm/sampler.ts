/** How busy the machine is with something else than the load, sample by sample. */
import { cpus } from 'node:os';
import type { CalmSample } from '$core/load/vitals/calm';
import { processTrees, readPressureMs, readProcessorTicks, readProcessTicks, TICK_MS } from './procStat';

/** Looks at the machine; each call of `sample` tells what happened since the one before. */
export interface Sampler {
	sample(): CalmSample;
}

const LOOK_FOR_PROCESSES_EVERY = 5;
/** Ticks of rounding that are carried on; more would hide others. */
const MOST_AHEAD = 4;

/** Linux, by proc(5). */
export class LinuxSampler implements Sampler {
	#before = readProcessorTicks();
	#pressureBefore = readPressureMs();
	#at = epochNow();
	#own = new Map<number, number>();
	#samples = 0;
	/** Ticks that the load's processes had more than the machine: each process is rounded by itself. */
	#ahead = 0;

	/** @param roots processes that work for the load: the lab with its browser, web, the simulated web */
	constructor(private readonly roots: readonly number[]) {
		for (const pid of processTrees(roots)) this.#own.set(pid, readProcessTicks(pid)?.ticks ?? 0);
	}

	sample(): CalmSample {
		if (this.#samples++ % LOOK_FOR_PROCESSES_EVERY === 0) this.#track();
		const now = readProcessorTicks();
		const atMs = epochNow();
		const before = this.#before;
		const busy = now.busy - before.busy;
		const stolen = now.stolen - before.stolen;
		const spanMs = atMs - this.#at;
		this.#before = now;
		this.#at = atMs;
		const own = this.#ownTicks();
		return {
			atMs,
			spanMs,
			busyMs: busy * TICK_MS,
			stolenMs: stolen * TICK_MS,
			foreignMs: this.#foreign(busy - (now.interrupts - before.interrupts), own.ticks) * TICK_MS,
			stopped: own.stopped,
			pressureMs: this.#pressure()
		};
	}

	/** What is left of the machine's ticks; too many own ones in one sample are taken off those that follow. */
	#foreign(all: number, own: number): number {
		const left = all - own - this.#ahead;
		this.#ahead = Math.min(MOST_AHEAD, Math.max(0, -left));
		return Math.max(0, left);
	}

	#pressure(): number | null {
		const now = readPressureMs();
		const before = this.#pressureBefore;
		this.#pressureBefore = now;
		return now === null || before === null ? null : now - before;
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

/** Elsewhere, as far as Node tells: how busy the processors are, and neither with whom nor what was stolen. */
export class PlainSampler implements Sampler {
	#before = busyMs();
	#at = epochNow();

	sample(): CalmSample {
		const busy = busyMs();
		const atMs = epochNow();
		const sample = { atMs, spanMs: atMs - this.#at, busyMs: busy - this.#before, ...UNKNOWN };
		this.#before = busy;
		this.#at = atMs;
		return sample;
	}
}

const UNKNOWN = { stolenMs: null, foreignMs: null, stopped: false, pressureMs: null };

function busyMs(): number {
	return cpus().reduce((sum, { times }) => sum + times.user + times.nice + times.sys + times.irq, 0);
}

function epochNow(): number {
	return performance.timeOrigin + performance.now();
}
