/** From samples of the machine to how busy it was during a load. */

import type { BusyShares } from './record';

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
