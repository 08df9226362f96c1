/** What a page view adds to the histograms of its hour: an entry a metric, and those that outcomes are read from. */
import { binOf, FIELD_METRICS, type FieldMetric } from './histogram';
import type { Visit } from './visit';

/** Name of a histogram: a metric, a custom timing, all page views, or a metric among those that reached a goal. */
export type TallyName = string;

export interface Tally {
	name: TallyName;
	bin: number;
}

/** All page views, in one bin: their number. */
export const VIEWS: TallyName = 'views';
export const timingName = (name: string): TallyName => `timing:${name}`;
export const goalName = (goal: string): TallyName => `goal:${goal}`;
/** LCP among the page views that reached a goal: with LCP over all it gives the goal's rate by speed. */
export const lcpOfGoal = (goal: string): TallyName => `lcp@${goal}`;

const COUNT_BIN = 0;

/** Custom timings are in ms: they share the bins of the timed metrics. */
export const binOfTiming = (ms: number): number => binOf('lcp', ms);

export function talliesOf({ metrics, timings, goals }: Pick<Visit, 'metrics' | 'timings' | 'goals'>): Tally[] {
	const figures = FIELD_METRICS.flatMap((id: FieldMetric) => {
		const value = metrics[id];
		return value === undefined ? [] : [{ name: id, bin: binOf(id, value) }];
	});
	const own = Object.entries(timings).map(([name, ms]) => ({ name: timingName(name), bin: binOfTiming(ms) }));
	const reached = [...new Set(goals)].flatMap((goal) => [
		{ name: goalName(goal), bin: COUNT_BIN },
		...(metrics.lcp === undefined ? [] : [{ name: lcpOfGoal(goal), bin: binOf('lcp', metrics.lcp) }])
	]);
	return [{ name: VIEWS, bin: COUNT_BIN }, ...figures, ...own, ...reached];
}
