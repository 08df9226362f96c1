/** Made-up trials of the core: designs, loads, rounds with a common drift. */
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import { noFigures, type MetricId } from '$core/metrics/catalogue';
import { normalFrom, seededRandom } from '$core/stats/random';
import type { judge } from '$core/trial/judge/judge';
import type { TrialDesign, TrialLoad } from '$core/trial/types';

export const arm = (id: number, name: string, extra = {}) => ({
	id,
	name,
	url: `http://a${id}.test/`,
	baseline: id === 1,
	reference: false,
	...extra
});

export function design(extra: Partial<TrialDesign> = {}): TrialDesign {
	return {
		kind: 'side-by-side',
		arms: [arm(1, 'As it is'), arm(2, 'Changed')],
		conditions: [BUILT_IN_CONDITIONS[1]!],
		rounds: 10,
		warmups: 0,
		seed: 7,
		primary: ['lcp', 'wire'],
		...extra
	};
}

let nextId = 1;
export function load(
	armId: number,
	round: number,
	figures: Partial<Record<MetricId, number>>,
	extra: Partial<TrialLoad> = {}
): TrialLoad {
	return {
		id: nextId++,
		armId,
		conditionId: 'desktop',
		stage: 0,
		round,
		warmup: false,
		status: 'ok',
		disturbed: false,
		excluded: null,
		figures: { ...noFigures(), ...figures },
		...extra
	};
}

/** Ten rounds with a common drift per round and a shift in the second arm. */
export function rounds(shiftMs: number, noise = 15, count = 10): TrialLoad[] {
	const random = seededRandom(99);
	return Array.from({ length: count }, (_, i) => i + 1).flatMap((round) => {
		const drift = 80 * normalFrom(random);
		return [
			load(1, round, { lcp: 2000 + drift + noise * normalFrom(random), wire: 500_000 }),
			load(2, round, { lcp: 2000 + shiftMs + drift + noise * normalFrom(random), wire: 500_000 })
		];
	});
}

/** Judged once, at the end of its plan. */
export const looked = (plan: TrialDesign, rounds = plan.rounds): TrialDesign => ({
	...plan,
	looks: [{ rounds, spent: 0.04, by: 'plan', ...(plan.kind === 'before-after' ? { stage: 1 } : {}) }]
});
export const lcpOf = (judgement: ReturnType<typeof judge>) =>
	judgement.results.find((result) => result.metric === 'lcp')!;
