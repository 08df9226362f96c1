/** What a record says of the machine around its load. */
import { disturbanceOf, samplesWithin, trackOf, type CalmLimits, type CalmSample } from '$core/load/vitals/calm';
import type { CalmRecord } from '$core/load/record/record';
import { readFrequencyMhz } from './procStat';

/** What the lab knows of a load beside its record. */
export interface LoadMoments {
	/** Epoch ms at which the page was asked for; null when it came to no navigation. */
	navigatedAtMs: number | null;
	/** How long the lab waited for a calm machine, and whether in vain. */
	waitedMs: number;
	gaveUp: boolean;
}

/** @param settledMs when the page had settled, ms since the navigation; null when it never did */
export function describeCalm(
	samples: readonly CalmSample[],
	{ navigatedAtMs, waitedMs, gaveUp }: LoadMoments,
	settledMs: number | null,
	limits: CalmLimits
): CalmRecord | null {
	if (navigatedAtMs === null || !samples.length) return null;
	const during = samplesWithin(samples, navigatedAtMs, settledMs === null ? Infinity : navigatedAtMs + settledMs);
	const disturbance = disturbanceOf(during, limits);
	return {
		track: trackOf(during, navigatedAtMs),
		share: disturbance?.share ?? null,
		burst: disturbance?.burst ?? null,
		disturbed: disturbance?.disturbed ?? false,
		waitedMs,
		gaveUp,
		frequencyMhz: readFrequencyMhz()
	};
}
