/** A lab without a browser: each load is what the test says. */
import { longestLoadMs } from '$core/load/record/limits';
import type { LoadOrder } from '$core/load/journey/order';
import type { MeasuredLoad } from '$core/load/record/record';
import type { Lab } from '../../src/lab/lab';

export const silent = { info: () => undefined, warn: () => undefined, error: () => undefined };

export function fakeLab(measure: (order: LoadOrder) => Promise<MeasuredLoad>) {
	const calls = { abandoned: 0, closed: 0, measured: 0 };
	const lab = {
		measure: (order: LoadOrder) => (calls.measured++, measure(order)),
		waitUntilStable: async () => ({ stable: true, tookMs: 0, words: 'Stable', fetches: [] }),
		longestMs: (order: LoadOrder) => longestLoadMs(order),
		abandon: async () => void calls.abandoned++,
		close: async () => void calls.closed++,
		sandboxed: true
	};
	return { lab: lab as unknown as Lab, calls };
}
