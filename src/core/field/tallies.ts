/** What a page view adds to the histograms of its hour: an entry a metric, and those that outcomes are read from. */
import { binOf, FIELD_METRICS, type FieldMetric } from './histogram';
import type { Navigation, Visit } from './visit';

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

/** How a visitor came, as far as it is known without asking who came: line, and way of arriving. */
export type VisitKind = `${'slow' | 'fast' | 'unknown'}/${'new' | 'again' | 'kept'}`;
export const VISIT_KINDS: readonly VisitKind[] = (['slow', 'fast', 'unknown'] as const).flatMap((line) =>
	(['new', 'again', 'kept'] as const).map((way): VisitKind => `${line}/${way}`)
);

const SLOW = ['slow-2g', '2g', '3g'];
/** Pages that the browser had made before, or had kept. */
const KEPT: readonly Navigation[] = ['back-forward-cache', 'prerender', 'soft-navigation'];
const AGAIN: readonly Navigation[] = ['reload', 'back-forward', 'restore'];

/** @param network effective connection type (WICG Network Information), empty where the browser does not say */
export function kindOfVisit(network: string, navigation: Navigation): VisitKind {
	const line = network === '' ? 'unknown' : SLOW.includes(network) ? 'slow' : 'fast';
	return `${line}/${KEPT.includes(navigation) ? 'kept' : AGAIN.includes(navigation) ? 'again' : 'new'}`;
}

/** A metric among the visits of one kind. */
export const kindName = (metric: FieldMetric, kind: VisitKind): TallyName => `${metric}~${kind}`;

/** @param kind null for page views of which it was not counted */
export function talliesOf(
	{ metrics, timings, goals }: Pick<Visit, 'metrics' | 'timings' | 'goals'>,
	kind: VisitKind | null = null
): Tally[] {
	const figures = FIELD_METRICS.flatMap((id: FieldMetric) => {
		const value = metrics[id];
		return value === undefined ? [] : [{ name: id, bin: binOf(id, value) }];
	});
	const own = Object.entries(timings).map(([name, ms]) => ({ name: timingName(name), bin: binOfTiming(ms) }));
	const reached = [...new Set(goals)].flatMap((goal) => [
		{ name: goalName(goal), bin: COUNT_BIN },
		...(metrics.lcp === undefined ? [] : [{ name: lcpOfGoal(goal), bin: binOf('lcp', metrics.lcp) }])
	]);
	const ofKind = kind ? figures.map(({ name, bin }) => ({ name: kindName(name, kind), bin })) : [];
	return [{ name: VIEWS, bin: COUNT_BIN }, ...figures, ...ofKind, ...own, ...reached];
}
