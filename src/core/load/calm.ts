/** From samples of the machine to how busy it was during a load. */

export interface BusyShares {
	/** Processor time that the host gave to other machines, of all that was wanted (stolen / (busy + stolen)); 0 to 1. */
	stolen: number;
	/** Processor time of processes that have nothing to do with the load, of all that was wanted; 0 to 1. */
	foreign: number;
	samples: number;
	/** Samples at which a process that works for the load was stopped from outside. */
	stopped: number;
}

/** Processor time of one sample, ms. */
export interface BusySample {
	busyMs: number;
	stolenMs: number;
	foreignMs: number;
	stopped: boolean;
}

/** Shares over samples in ms of processor time. Null without samples, or when nothing was wanted. */
export function busyShares(samples: readonly BusySample[]): BusyShares | null {
	const total = (field: 'busyMs' | 'stolenMs' | 'foreignMs') => samples.reduce((sum, sample) => sum + sample[field], 0);
	const stolenMs = total('stolenMs');
	const wantedMs = total('busyMs') + stolenMs;
	if (wantedMs <= 0) return null;
	const stopped = samples.filter((sample) => sample.stopped).length;
	return {
		stolen: stolenMs / wantedMs,
		foreign: Math.min(1, total('foreignMs') / wantedMs),
		samples: samples.length,
		stopped
	};
}
