/** What own visits say of one page beside the vitals: custom timings, and goals by speed. */
import { quantileOf, weightOf } from '$core/field/histogram';
import { outcomeByLcp, type BandOutcome } from '$core/field/outcome';
import { goalName, lcpOfGoal, timingName, VIEWS } from '$core/field/tallies';
import { addDays } from '$core/field/windows';
import type { DeviceClass } from '$core/field/reading';
import type { CustomTiming } from '$core/field/visitSettings';
import type { Db } from '../../base/db/connection';
import { histogramOfName, histogramsOver } from './readings';
import type { VisitSource } from './queries/sources';

const DAYS = 28;

export interface TimingReading {
	timing: CustomTiming;
	/** Page views that set it. */
	views: number;
	p75: number;
}

export interface PageVisits {
	/** Page views that reported in the last 28 days. */
	views: number;
	timings: TimingReading[];
	goals: { goal: string; reached: number; bands: BandOutcome[] }[];
}

/** @param until the last whole day */
export function pageVisits(
	db: Db,
	{
		visitSource: { siteId, settings },
		bucket,
		device,
		until
	}: { visitSource: VisitSource; bucket: string; device: DeviceClass | null; until: string }
): PageVisits {
	const from = addDays(until, 1 - DAYS);
	const histograms = histogramsOver(db, { siteId, buckets: [bucket], device, from, until });
	const named = (name: string) => histogramOfName(db, histograms, name);
	const lcp = named('lcp');
	return {
		views: weightOf(named(VIEWS)),
		timings: settings.timings.flatMap((timing) => {
			const histogram = named(timingName(timing.name));
			const p75 = quantileOf('lcp', histogram, 0.75);
			return p75 === null ? [] : [{ timing, views: weightOf(histogram), p75 }];
		}),
		goals: settings.goals.flatMap((goal) => {
			const reached = weightOf(named(goalName(goal)));
			return reached === 0 ? [] : [{ goal, reached, bands: outcomeByLcp(lcp, named(lcpOfGoal(goal))) }];
		})
	};
}
