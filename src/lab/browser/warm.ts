/**
 * A fresh browser's first load is slow (desktop: largest paint 11 % later, first paint 16 %): caches of fonts, of code
 * and of the graphics process fill once. Before it measures, it loads the lab's own control page, which counts for
 * nothing, until two loads in a row agree.
 */
import { USUAL, type Conditions } from '$core/load/conditions/conditions';
import type { LoadRecord } from '$core/load/record/record';

/** Loads of the control page at most: where they do not agree by then, the machine scatters by itself. */
export const MOST_WARM_LOADS = 3;
/** How near two first paints must be (house). */
const AGREE_SHARE = 0.05;
const AGREE_MS = 10;
/** The control page is small: what takes longer is no measure of anything. */
const CAP_MS = 10_000;
const QUIET_MS = 300;

/** The device and the line alone: what somebody else's page asks for stays with it. */
export function warmConditions({ device, network, ...rest }: Conditions): Conditions {
	return {
		...rest,
		...USUAL,
		device,
		network,
		capMs: CAP_MS,
		quietMs: QUIET_MS
	};
}

/** @param load one load of the control page; null ends it */
export async function warmUp(load: () => Promise<LoadRecord | null>): Promise<void> {
	let before: number | null = null;
	for (let i = 0; i < MOST_WARM_LOADS; i++) {
		const record = await load();
		const fcp = record?.status === 'ok' ? record.figures.fcp : null;
		// A browser that cannot load the control page tells so with the load itself.
		if (fcp === null) return;
		if (before !== null && Math.abs(fcp - before) <= Math.max(AGREE_MS, AGREE_SHARE * before)) return;
		before = fcp;
	}
}
