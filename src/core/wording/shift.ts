/**
 * The wording of a shift and of a verdict: one tested rule for screens, reports and exports.
 *
 * "0.61 s less (between 0.74 s less and 0.49 s less), 26 % of 2.35 s": the interval that was judged, in the metric's
 * own
 * unit; a per cent only beside the estimate, as a share of the baseline's middle figure. Never "x % faster", never a
 * ratio as if it were a gain, never a second interval on another scale.
 */
import { metricOf } from '../metrics/catalogue';
import { excludesZero, isFaint } from '../trial/judge/faint';
import type { Shift, ShiftResult } from '../trial/types';
import { MOST_ROUNDS } from '../trial/judge/verdict';
import { formatDuration, formatIn, formatValue } from './format';
import { judgementWord } from './headline';
import { improved } from './judged';
import { plainName } from './plainNames';
import { describeReason } from './reasons';
import { ENGLISH, type Words } from './words';

const JOIN = '\u00a0';
const POINTS = `${JOIN}points`;
const ONE_POINT = `${JOIN}point`;

const MOST_PERCENT = 999;

type Scaled = Pick<ShiftResult, 'metric' | 'scale'>;

/** Size of a difference with its unit, without a sign. */
function sizeOf({ metric, scale }: Scaled, difference: number): string {
	const size = Math.abs(difference);
	if (scale === 'share') return `${(size * 100).toFixed(1)}${JOIN}%`;
	const { unit } = metricOf(metric);
	const text = formatIn(unit, size, true);
	return unit === 'points' ? text + (text === '1.0' ? ONE_POINT : POINTS) : text;
}

/** "420 ms more", "0.051 less", "unchanged". */
export function wordDifference(metric: string, difference: number, scale: ShiftResult['scale'] = 'unit'): string {
	const size = sizeOf({ metric: metric as ShiftResult['metric'], scale }, difference);
	if (!/[1-9]/.test(size)) return 'unchanged';
	return `${size} ${difference > 0 ? 'more' : 'less'}`;
}

/** The interval alone: "between 0.74 s less and 0.49 s less". */
export function wordInterval({ metric, scale, shift }: Scaled & { shift: Pick<Shift, 'low' | 'high'> }): string {
	if (shift.low === null || shift.high === null) return 'not enough rounds for an interval';
	if (shift.low === shift.high) return 'identical in every round';
	const [low, high] = [wordDifference(metric, shift.low, scale), wordDifference(metric, shift.high, scale)];
	if (low !== high) return `between ${low} and ${high}`;
	// Both round to the same: with the digits in which they differ.
	return `between ${wordFinely({ metric, scale }, shift.low)} and ${wordFinely({ metric, scale }, shift.high)}`;
}

/** A difference that rounds away, to two digits: "0.8 ms more". */
function wordFinely({ metric, scale }: Scaled, difference: number): string {
	if (difference === 0) return 'no difference';
	const { unit } = metricOf(metric);
	const size = Number((Math.abs(difference) * (scale === 'share' ? 100 : 1)).toPrecision(2));
	const units = { ms: `${JOIN}ms`, bytes: `${JOIN}B`, points: POINTS, count: '', unitless: '' };
	const shown = size < 1e-4 ? size.toExponential(1) : `${size}`;
	return `${shown}${scale === 'share' ? `${JOIN}%` : units[unit]} ${difference > 0 ? 'more' : 'less'}`;
}

/** What taking the reference page off costs or gains: how wide the interval is with it. Empty where none is known. */
export function wordReferenceCost({ shift, rawShift }: Pick<ShiftResult, 'shift' | 'rawShift'>): string {
	const widthOf = (item: Pick<Shift, 'low' | 'high'> | null) =>
		item === null || item.low === null || item.high === null ? 0 : item.high - item.low;
	const [width, raw] = [widthOf(shift), widthOf(rawShift)];
	if (!width || !raw) return '';
	return `the interval is ${(width / raw).toFixed(1)} times as wide as without the reference`;
}

/** Of a page's own timing, ms: "40 ms more (between 12 ms more and 66 ms more)". */
export function wordTimingShift({ estimate, low, high }: Pick<Shift, 'estimate' | 'low' | 'high'>): string {
	const timing = { metric: 'lcp', scale: 'unit' } as const;
	return `${wordDifference('lcp', estimate)} (${wordInterval({ ...timing, shift: { low, high } })})`;
}

/**
 * How the interval of a page's own timing lies to the margin that the analyst set for it. No verdict: nothing was
 * decided on it. Empty without a margin or an interval.
 * @param margin ms
 */
export function wordTimingMargin({ low, high }: Pick<Shift, 'low' | 'high'>, margin: number | null): string {
	if (margin === null || low === null || high === null) return '';
	const marginWords = formatDuration(margin);
	if (low > -margin && high < margin) return `all within the margin of ${marginWords}`;
	if (low >= margin || high <= -margin) return `all beyond the margin of ${marginWords}`;
	return `reaches over the margin of ${marginWords}`;
}

/** The whole shift with its interval: first the size, or the interval where the size is probably too large. */
export function wordShift(
	result: Scaled & { shift: Shift; baselineMedian: number | null; verdict?: ShiftResult['verdict'] }
): string {
	const { metric, scale, shift, baselineMedian, verdict } = result;
	const measured = wordDifference(metric, shift.estimate, scale);
	const isCalled = verdict === 'better' || verdict === 'worse' || verdict === 'slight';
	if (isCalled && isFaint(result)) {
		const range = `${wordInterval(result)} (${measured} measured, probably smaller)`;
		return scale === 'share' ? `${range} of each page’s own figure` : range;
	}
	const size = `${measured} (${wordInterval(result)})`;
	if (scale === 'share') return `${size} of each page’s own figure`;
	const percent = shift.relative === null ? 0 : Math.abs(shift.relative) * 100;
	// Of next to nothing, a share says nothing.
	if (percent < 0.05 || percent > MOST_PERCENT || baselineMedian === null) return size;
	return `${size}, ${percent.toFixed(percent < 1 ? 1 : 0)}${JOIN}% of ${formatValue(metric, baselineMedian)}`;
}

/**
 * The verdict as a short label for tables: "slower", "slower, perhaps too little to matter", "no practical
 * difference".
 */
export function wordVerdict(result: Pick<ShiftResult, 'metric' | 'verdict' | 'shift'>, words: Words = ENGLISH): string {
	const { verdict } = result;
	if (verdict === 'better' || verdict === 'worse') return judgementWord(result, verdict === 'better', words);
	if (verdict !== 'slight') return words.say(`verdict.${verdict}`);
	return words.say('verdict.slight', { word: judgementWord(result, improved(result), words) });
}

export interface Names {
	baseline: string;
	arm: string;
}

const rounds = (count: number) => `${count} ${count === 1 ? 'round' : 'rounds'}`;

/** One line of answer for the analyst, without the conditions: they stand above it. */
export function wordAnswer(result: ShiftResult, names: Names): string {
	const metric = metricOf(result.metric);
	const subject = `“${names.arm}”`;
	if (!result.shift || result.verdict === 'none')
		return `${metric.name}: no verdict. ${result.reason ? describeReason(result.reason) : ENGLISH.say('reason.not-chosen')}`;
	const judged = { ...result, shift: result.shift };
	const medians = `${formatValue(metric.id, result.armMedian)} against ${formatValue(metric.id, result.baselineMedian)}`;
	const margin = sizeOf(result, result.margin);
	const target = result.target ? ` ${wordTarget(result, names)}` : '';
	switch (result.verdict) {
		case 'better':
		case 'worse':
			return `${metric.name}: ${subject} is ${wordVerdict(result)} than “${names.baseline}”: ${medians}, ${wordShift(judged)}.${target}`;
		case 'slight':
			return `${metric.name}: ${subject} is ${judgementWord(result, improved(result), ENGLISH)} than “${names.baseline}”; by how much is open: ${medians}, ${wordShift(judged)}.${target}`;
		case 'same':
			return `${metric.name}: no practical difference: ${medians}, ${wordShift(judged)}, within the margin of ${margin}.${target}`;
		default:
			return `${metric.name}: undecided after ${rounds(result.n)}: ${wordInterval(judged)}. ${excludesZero(result) ? `${ENGLISH.say('verdict.joint')} ` : ''}${wordMore(result, plainName(result.metric))}`;
	}
}

type Met = Pick<ShiftResult, 'metric' | 'armMedian' | 'baselineMedian' | 'target'>;

/** Which of the two meets the target where only one does; null where both or none do. */
export function onlyMeets({ metric, armMedian, target }: Met): keyof Names | null {
	if (target?.standing !== 'crosses' || armMedian === null) return null;
	const isMet = metricOf(metric).higherIsBetter ? armMedian >= target.value : armMedian <= target.value;
	return isMet ? 'arm' : 'baseline';
}

/** Where both middle figures stand to the target. */
export function wordTarget(result: Met, names: Names, words: Words = ENGLISH): string {
	const side = onlyMeets(result);
	if (side) return words.say('target.crosses', { name: names[side] });
	return words.say(result.target!.standing === 'both-met' ? 'target.both-met' : 'target.both-missed');
}

/** What would probably decide what is open. @param metrics their names */
export function wordMore(
	{ roundsNeeded, n }: Pick<ShiftResult, 'roundsNeeded' | 'n'>,
	metrics: string,
	words: Words = ENGLISH
): string {
	if (roundsNeeded === null) return words.say('more.unknown', { metrics });
	if (roundsNeeded > MOST_ROUNDS) return words.say('more.beyond', { most: MOST_ROUNDS, metrics });
	return roundsNeeded <= n
		? words.say('more.few', { metrics })
		: words.say('more.rounds', { rounds: roundsNeeded, metrics });
}
