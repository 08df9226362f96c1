/** Which candidate is best: places by metric, and what may be said over all of them. `measurement.md`, section 8. */
import { group } from 'd3-array';
import { metricOf, type MetricId } from '../../metrics/catalogue';
import type { Shift, ShiftResult, TrialDesign, Verdict } from '../types';

/** Where a candidate stands by one metric under one set of conditions. */
export interface Place {
	condition: string;
	metric: MetricId;
	arm: number;
	/** First and last place that it may have, from 1. */
	from: number;
	to: number;
}

const TURNED: Readonly<Partial<Record<Verdict, Verdict>>> = { better: 'worse', worse: 'better' };

/** The same result told from the other side: the baseline against the arm. */
export function turned(result: ShiftResult): ShiftResult {
	const { shift, baselineMedian, armMedian, verdict } = result;
	return {
		...result,
		baseline: result.arm,
		arm: result.baseline,
		baselineMedian: armMedian,
		armMedian: baselineMedian,
		shift: shift && turnedShift(shift, armMedian),
		verdict: TURNED[verdict] ?? verdict
	};
}

function turnedShift({ estimate, low, high, relative }: Shift, size: number | null): Shift {
	const minus = (value: number | null) => (value === null || value === 0 ? value : -value);
	return {
		estimate: -estimate || 0,
		low: minus(high),
		high: minus(low),
		relative: relative === null || size === null || size <= 0 ? null : -estimate / size || 0
	};
}

/** All candidates against one of them. */
export function resultsAgainst(everyPair: readonly ShiftResult[], arm: number): ShiftResult[] {
	return everyPair.flatMap((result) =>
		result.baseline === arm ? [result] : result.arm === arm ? [turned(result)] : []
	);
}

/** A difference was called, whatever its size; its direction. Null where none was. */
function aheadIn({ verdict, shift, metric }: ShiftResult): 'arm' | 'baseline' | null {
	if (!shift || !['better', 'worse', 'slight'].includes(verdict)) return null;
	return shift.estimate > 0 === metricOf(metric).higherIsBetter ? 'arm' : 'baseline';
}

/**
 * Places by metric and conditions: behind every candidate that is surely ahead, before every one that is surely behind.
 * @param everyPair results of every pair of candidates; of primary metrics alone places are told
 * @returns in the order of the results; a candidate without a figure has no place
 */
export function placesOf(everyPair: readonly ShiftResult[]): Place[] {
	const contests = group(
		everyPair.filter(({ primary }) => primary),
		({ condition, metric }) => `${condition}/${metric}`
	);
	return [...contests.values()].flatMap((own) => {
		const measured = own.filter(({ shift }) => shift);
		const arms = [...new Set(measured.flatMap(({ baseline, arm }) => [baseline, arm]))];
		const { condition, metric } = own[0]!;
		return arms.map((arm): Place => {
			const against = resultsAgainst(measured, arm).map(aheadIn);
			const ahead = against.filter((side) => side === 'arm').length;
			const behind = against.filter((side) => side === 'baseline').length;
			return { condition, metric, arm, from: 1 + ahead, to: arms.length - behind };
		});
	});
}

/** Metrics in which a candidate stands on one side of every other, under all conditions. */
export interface Extreme {
	arm: number;
	metrics: MetricId[];
}

/** What may be said of all candidates over all metrics that the trial decides on. */
export type Best =
	/** Better than or the same as every other in every metric, and better than each in at least one. */
	| { kind: 'best'; arm: number }
	/** These are the same in every metric, and each is better than or the same as every other. */
	| { kind: 'equal'; arms: number[] }
	/** Each is surely behind another one in something (`trade`), or that is not decided (`open`). */
	| { kind: 'trade' | 'open'; ahead: Extreme[]; behind: Extreme[] }
	/** Nothing was judged. */
	| { kind: 'none' };

/** @param everyPair results of every pair of candidates, under one or all of the conditions */
export function bestOf({ arms }: Pick<TrialDesign, 'arms'>, everyPair: readonly ShiftResult[]): Best {
	const primary = everyPair.filter((result) => result.primary);
	if (primary.every(({ verdict }) => verdict === 'none')) return { kind: 'none' };
	const candidates = arms.map(({ id }) => new Candidate(id, primary));
	const leaders = candidates.filter((candidate) => candidate.isNeverBehind);
	const best = leaders.find((candidate) => candidate.isAheadOfEach);
	if (best) return { kind: 'best', arm: best.id };
	// None of them is behind another: they can only be the same.
	if (leaders.length > 1) return { kind: 'equal', arms: leaders.map(({ id }) => id) };
	const extremes = (verdict: Verdict) =>
		candidates.flatMap(({ id, metricsWith }) => {
			const metrics = metricsWith(verdict);
			return metrics.length ? [{ arm: id, metrics }] : [];
		});
	const isTrade = candidates.every((candidate) => candidate.isBehindOne);
	return { kind: isTrade ? 'trade' : 'open', ahead: extremes('better'), behind: extremes('worse') };
}

/** A candidate against each other one. */
class Candidate {
	readonly #against: readonly ShiftResult[][];

	constructor(
		readonly id: number,
		everyPair: readonly ShiftResult[]
	) {
		const own = everyPair.filter(({ baseline, arm }) => baseline === id || arm === id);
		this.#against = [
			...group(
				own.map((result) => (result.arm === id ? result : turned(result))),
				({ baseline }) => baseline
			).values()
		];
	}

	/** Better or the same everywhere; a difference whose size is open may stand on the better side alone. */
	get isNeverBehind(): boolean {
		return this.#against.every((results) =>
			results.every(
				(result) =>
					result.verdict === 'better' ||
					result.verdict === 'same' ||
					(result.verdict === 'slight' && aheadIn(result) === 'arm')
			)
		);
	}

	get isAheadOfEach(): boolean {
		return this.#against.every((results) => results.some(({ verdict }) => verdict === 'better'));
	}

	get isBehindOne(): boolean {
		return this.#against.some((results) => results.some(({ verdict }) => verdict === 'worse'));
	}

	metricsWith = (wanted: Verdict): MetricId[] => {
		const all = this.#against.flat();
		const metrics = [...new Set(all.map(({ metric }) => metric))];
		return metrics.filter((metric) =>
			all.filter((result) => result.metric === metric).every(({ verdict }) => verdict === wanted)
		);
	};
}
