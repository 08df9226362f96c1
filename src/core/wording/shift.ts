/**
 * The wording of a shift and of a verdict: one tested rule for screens, reports and exports.
 *
 * A shift is worded as a difference with its share of the baseline, "0.61 s less (−26 %, between −31 % and −20 %)":
 * never "x % faster", never a ratio as if it were a gain.
 */
import { metricOf } from '../metrics/catalogue';
import type { Shift, ShiftResult, Verdict } from '../trial/types';
import { formatDifference, formatIn, formatShare, formatValue } from './format';

const POINTS = '\u00a0points';

/** "420 ms more", "0.051 less", "unchanged". */
export function wordDifference(metric: string, difference: number): string {
	const { unit } = metricOf(metric);
	const size = formatIn(unit, Math.abs(difference), true);
	if (!/[1-9]/.test(size)) return 'unchanged';
	return `${size}${unit === 'points' ? POINTS : ''} ${difference > 0 ? 'more' : 'less'}`;
}

/** The whole shift with its interval. */
export function wordShift(metric: string, shift: Shift): string {
	const size = wordDifference(metric, shift.estimate);
	const { relative } = shift;
	if (shift.low !== null && formatDifference(metric, shift.low) === formatDifference(metric, shift.high!))
		return `${size} (${relative ? `${formatShare(relative.estimate)}, ` : ''}alike in every round)`;
	if (relative && relative.low !== null && relative.high !== null)
		return `${size} (${formatShare(relative.estimate)}, between ${formatShare(relative.low)} and ${formatShare(relative.high)})`;
	if (shift.low !== null && shift.high !== null)
		return `${size} (between ${formatDifference(metric, shift.low)} and ${formatDifference(metric, shift.high)})`;
	return `${size} (too few rounds for an interval)`;
}

/** The verdict as a short label for tables: "slower", "perhaps slower", "no practical difference". */
export function wordVerdict(result: Pick<ShiftResult, 'metric' | 'verdict' | 'shift'>): string {
	const { words, higherIsBetter } = metricOf(result.metric);
	const improved = result.shift !== null && result.shift.estimate > 0 === higherIsBetter;
	const labels: Record<Verdict, string> = {
		better: words[0],
		worse: words[1],
		slight: `${words[improved ? 0 : 1]}, perhaps too little to matter`,
		same: 'no practical difference',
		undecided: 'undecided',
		none: 'no verdict'
	};
	return labels[result.verdict];
}

export interface Names {
	baseline: string;
	arm: string;
}

/** One sentence of answer for a client, without the conditions: they stand above it. */
export function wordAnswer(result: ShiftResult, names: Names): string {
	const metric = metricOf(result.metric);
	const subject = `“${names.arm}”`;
	if (!result.shift || result.verdict === 'none')
		return `${metric.name}: no verdict. ${result.reason ?? 'There are no loads to compare yet.'}`;
	const medians = `${formatValue(metric.id, result.armMedian)} against ${formatValue(metric.id, result.baselineMedian)}`;
	const shift = wordShift(metric.id, result.shift);
	const margin = formatIn(metric.unit, result.margin, true) + (metric.unit === 'points' ? POINTS : '');
	switch (result.verdict) {
		case 'better':
		case 'worse':
			return `${metric.name}: ${subject} is ${wordVerdict(result)} than “${names.baseline}”: ${medians}, ${shift}.`;
		case 'slight':
			return `${metric.name}: ${subject} is ${wordVerdict(result)}: ${medians}, ${shift}. The margin is ${margin}.`;
		case 'same':
			return `${metric.name}: no practical difference: ${medians}, ${shift}, within the margin of ${margin}.`;
		default:
			return `${metric.name}: undecided after ${result.n} ${result.n === 1 ? 'round' : 'rounds'}: ${medians}, ${shift}. ${wordMore(result)}`;
	}
}

function wordMore(result: ShiftResult): string {
	if (result.roundsNeeded === null) return 'No sensible number of rounds is likely to decide it.';
	if (result.roundsNeeded <= result.n) return 'A few more rounds would probably decide it.';
	return `About ${result.roundsNeeded} rounds would probably decide it.`;
}
