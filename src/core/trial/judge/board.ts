/** The shift board: every shift on one axis, in margins, turned so that better is left and worse is right. */
import { metricOf, type MetricId } from '../../metrics/catalogue';
import type { ShiftResult, Verdict } from '../types';

/** A shift and the ends of its interval in margins: -1 is better by one margin, 1 worse by one. */
export interface MarginInterval {
	estimate: number;
	/** Null where so few rounds cannot give an interval. */
	low: number | null;
	high: number | null;
}

export interface BoardMark {
	metric: MetricId;
	verdict: Verdict;
	/** Null without a shift. */
	inMargins: MarginInterval | null;
	/** Identical in every round: a point, and no interval. */
	isExact: boolean;
	/** The gain is only put off: it comes back later. */
	isPutOff?: boolean;
}

/** One mark per metric, in the order of the metrics; those without a result are left out. */
export function boardMarks(results: readonly ShiftResult[], metrics: readonly MetricId[]): BoardMark[] {
	return metrics.flatMap((metric) => {
		const result = results.find((candidate) => candidate.metric === metric);
		return result ? [boardMark(result)] : [];
	});
}

export function boardMark(result: Pick<ShiftResult, 'metric' | 'verdict' | 'shift' | 'margin'>): BoardMark {
	const { metric, verdict, shift } = result;
	return {
		metric,
		verdict,
		inMargins: inMargins(result),
		isExact: shift !== null && shift.low !== null && shift.low === shift.high
	};
}

function inMargins({ metric, shift, margin }: Pick<ShiftResult, 'metric' | 'shift' | 'margin'>): MarginInterval | null {
	if (!shift || margin <= 0) return null;
	const turn = metricOf(metric).higherIsBetter ? -1 : 1;
	const scaled = (value: number) => (value === 0 ? 0 : (turn * value) / margin);
	if (shift.low === null || shift.high === null) return { estimate: scaled(shift.estimate), low: null, high: null };
	const ends = [scaled(shift.low), scaled(shift.high)];
	return { estimate: scaled(shift.estimate), low: Math.min(...ends), high: Math.max(...ends) };
}

/** The decided mark farthest from zero; null when nothing is decided. */
export function largestDecided(marks: readonly BoardMark[]): BoardMark | null {
	const sizeOf = ({ inMargins }: BoardMark) => Math.abs(inMargins?.estimate ?? 0);
	const decided = marks.filter(({ verdict }) => verdict === 'better' || verdict === 'worse');
	return decided.reduce<BoardMark | null>((most, mark) => (most && sizeOf(most) >= sizeOf(mark) ? most : mark), null);
}
