/** Candidates of a trial that asks which is best: made-up designs, rounds and verdicts. */
import { normalFrom, seededRandom } from '$core/stats/random';
import { judge } from '$core/trial/judge/judge';
import { bestOf } from '$core/trial/judge/places';
import { bestAnswer } from '$core/wording/bestAnswer';
import type { ShiftResult, TrialDesign, TrialLoad, Verdict } from '$core/trial/types';
import { arm, design, load, looked } from './trials';

export const NAMES = ['Lathwork', 'Plainstem', 'Mortise', 'Patchboard'];
export const candidates = (count: number, extra: Partial<TrialDesign> = {}) =>
	design({
		aim: 'best',
		arms: NAMES.slice(0, count).map((name, i) => arm(i + 1, name)),
		rounds: 12,
		...extra
	});

/** Rounds in which each candidate has its own middle figures and the same noise. */
export function roundsOf(
	middles: readonly { lcp: number; wire: number }[],
	count: number,
	noise = 20,
	seed = 5
): TrialLoad[] {
	const random = seededRandom(seed);
	return Array.from({ length: count }, (_, i) => i + 1).flatMap((round) =>
		middles.map(({ lcp, wire }, i) => load(i + 1, round, { lcp: lcp + noise * normalFrom(random), wire }))
	);
}

export const A = { lcp: 1500, wire: 300_000 };
export const B = { lcp: 2000, wire: 400_000 };
export const C = { lcp: 2600, wire: 520_000 };

const BASE = judge(looked(design()), roundsOf([A, A], 12)).results.filter(({ primary }) => primary);

/** A pair's results from words: metric to verdict of the second candidate against the first. */
export const pair = (
	baseline: number,
	second: number,
	verdicts: Partial<Record<'lcp' | 'wire', Verdict>>,
	isUp: () => boolean = () => true
): ShiftResult[] =>
	(Object.entries(verdicts) as ['lcp' | 'wire', Verdict][]).map(([metric, verdict]) => ({
		...BASE.find((result) => result.metric === metric)!,
		baseline,
		arm: second,
		verdict,
		shift: {
			estimate: verdict === 'better' || (verdict === 'slight' && !isUp()) ? -500 : 500,
			low: null,
			high: null,
			relative: null
		}
	}));
export const three = { arms: NAMES.slice(0, 3).map((name, i) => arm(i + 1, name)) };
export const said = (everyPair: ShiftResult[]) =>
	bestAnswer(bestOf(three, everyPair), { arms: three.arms, everyPair, currency: 'EUR' }).sentence;
