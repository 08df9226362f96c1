/** How a page stands against an earlier reading: the newest block against that of a week, a month or a year ago. */
import { marginFor, type Margin, type MetricId } from '../metrics/catalogue';
import { normalQuantile } from '../stats/normal';
import { ratioMakesSense } from '../trial/judge/measures';
import { decide } from '../trial/judge/verdict';
import type { ShiftResult } from '../trial/types';
import { blockOf, type Block } from './block';
import type { Change, HistoryFindings } from './history';
import { measured, settingParts, type PageHistory, type PageReading } from './reading';
import type { Point } from './level';
import { stepOf, varianceWithin } from './step';

export const PERIODS = ['week', 'month', 'start'] as const;
export type Period = (typeof PERIODS)[number];

const DAYS: Record<Period, number> = { week: 7, month: 28, start: Infinity };
const DAY_MS = 86_400_000;
/** A reading comes at another hour each week: half a day more or less is still a week. */
const TOLERANCE_DAYS = 0.5;
const LEVEL = 0.95;

/**
 * The newest reading that is at least so old, with figures; for `start` the oldest that can be compared with it. Null
 * where there is none.
 */
export function readingBefore(readings: readonly PageReading[], period: Period): PageReading | null {
	const readable = readings.filter(({ setting }) => setting !== null);
	const newest = readable.at(-1);
	if (!newest || readable.length < 2) return null;
	if (period === 'start') {
		const first = readable.find(({ setting }) => !settingParts(setting, newest.setting).length)!;
		return first === newest ? readable[0]! : first;
	}
	const until = Date.parse(newest.at) - (DAYS[period] - TOLERANCE_DAYS) * DAY_MS;
	return readable.findLast(({ at }) => Date.parse(at) <= until) ?? null;
}

/**
 * Results as those of a trial: drawn on the same board. A word of better or worse needs a call of the history in
 * between, in the same direction; two blocks alone call nothing. Across a change of the lab nothing is compared.
 */
export function sinceReading(
	{ page, condition, readings }: PageHistory,
	{
		before,
		metrics,
		historyFindings: { changes, figures: states },
		margins
	}: {
		before: PageReading;
		metrics: readonly MetricId[];
		historyFindings: Pick<HistoryFindings, 'changes' | 'figures'>;
		margins: Partial<Record<MetricId, Margin>> | null;
	}
): ShiftResult[] {
	const newest = readings.findLast(({ setting }) => setting !== null);
	if (!newest || settingParts(before.setting, newest.setting).length) return [];
	return metrics.flatMap((metric) => {
		const [from, to] = [before, newest].map(({ figures }) => blockOf(measured(figures[metric])));
		if (!from || !to) return [];
		const own = states.find((state) => state.page === page && state.condition === condition && state.metric === metric);
		const within = varianceWithin([from, to]);
		const pointOf = ({ middle, loads }: Block): Point => ({
			value: middle,
			variance: within / loads + (own?.between ?? 0) * from.middle ** 2,
			moved: 0
		});
		const { size, error } = stepOf([pointOf(from)], [pointOf(to)]);
		const reach = normalQuantile(1 - (1 - LEVEL) / 2) * error;
		const shift = { estimate: size, low: size - reach, high: size + reach };
		const margin = marginFor(metric, from.middle, margins ?? undefined);
		const called = changes.some(
			(change) =>
				change.page === page &&
				change.condition === condition &&
				change.metric === metric &&
				newestPart(change) > before.reading &&
				change.after <= newest.reading &&
				change.shift.estimate > 0 === size > 0
		);
		const relative = ratioMakesSense(metric) && from.middle > 0 ? size / from.middle : null;
		return [
			asResult({
				condition,
				metric,
				from: from.middle,
				to: to.middle,
				n: Math.min(from.loads, to.loads),
				shift: { ...shift, relative },
				margin,
				verdict: decide({ metric, shift, margin, called })
			})
		];
	});
}

/** A change that began before may have grown since. */
const newestPart = ({ after, grew }: Change): number => grew.at(-1)?.after ?? after;

type Told = Pick<ShiftResult, 'condition' | 'metric' | 'n' | 'shift' | 'margin' | 'verdict'> & {
	from: number;
	to: number;
};

/** A difference over time in the shape of a trial's result. */
function asResult({ from, to, ...told }: Told): ShiftResult {
	return {
		...told,
		baseline: 0,
		arm: 1,
		baselineMedian: from,
		armMedian: to,
		rawShift: null,
		referenceCorrelation: null,
		scale: 'unit',
		p: null,
		adjustedP: null,
		primary: true,
		level: LEVEL,
		decidedAt: null,
		reason: null,
		roundsNeeded: null,
		hope: null,
		target: null
	};
}

export const changeResult = ({ condition, metric, from, to, shift, margin, verdict }: Change): ShiftResult =>
	asResult({ condition, metric, from, to, n: 0, shift, margin, verdict });
