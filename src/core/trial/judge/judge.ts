/** Judging a trial: from its finished loads to shifts and verdicts. Pure, seeded, repeatable at any time. */
import { asksForBest, hasStages } from '../design/kinds';
import { isLog } from '../design/log';
import { samplePagesOf } from '../design/comparisons';
import { METRIC_IDS } from '../../metrics/catalogue';
import { LAB_RECIPE } from '../../metrics/score';
import { median, scaledMad } from '../../stats/summary';
import { judgeRounds } from './judgeRounds';
import { judgeStages } from './judgeStages';
import { healthOf, Samples } from './samples';
import type { Judgement, PooledSpread, TrialDesign, TrialLoad } from '../types';

export { ALL_PAGES, comparisonsOf } from '../design/comparisons';

/** Changes whenever a rule of judging changes, so that cached judgements are computed again. */
export const JUDGE_VERSION = '4';

/**
 * Judge a trial at the looks that were taken of it. Warm-ups and failed loads never enter an estimate; failures count
 * against their arm. Loads that the analyst excluded count all the same: excluding is done after seeing the figures.
 * @param most flips or deals of a joint test; fewer for quick simulations
 * @throws RangeError when the design has no baseline
 */
export function judge(design: TrialDesign, loads: readonly TrialLoad[], most?: number): Judgement {
	if (!design.arms.some((arm) => arm.baseline)) throw new RangeError('A trial needs a baseline arm.');
	const samples = new Samples(design, loads);
	const judged = judgedFrom(design, samples, most);
	const someExcluded = loads.some((load) => load.excluded !== null && !load.warmup);
	return {
		version: JUDGE_VERSION,
		recipe: LAB_RECIPE.version,
		looks: [...(design.looks ?? [])],
		...judged,
		withoutExcluded: someExcluded
			? judgedFrom(design, new Samples(design, loads.filter(isIncluded)), most).results
			: null,
		health: healthOf(samples, design),
		spread: spreadWithinArms(design, samples)
	};
}

const isIncluded = (load: TrialLoad) => load.excluded === null;

type Judged = Pick<Judgement, 'results' | 'everyPair' | 'steps' | 'samplePages'>;

function judgedFrom(design: TrialDesign, samples: Samples, most?: number): Judged {
	const looks = design.looks ?? [];
	if (hasStages(design.kind)) {
		const { own, pages } = judgeStages(design, samples, looks, most);
		if (!isLog(design)) return { results: own.start };
		return {
			results: own.start,
			steps: own.previous,
			...(samplePagesOf(design).length ? { samplePages: pages } : {})
		};
	}
	const results = judgeRounds(design, samples, looks, most);
	if (!asksForBest(design)) return { results };
	// Of all pairs those that hold the one that is named first.
	const first = design.arms.find((arm) => arm.baseline)!.id;
	return { results: results.filter(({ baseline }) => baseline === first), everyPair: results };
}

/** What loads of one arm differ by among themselves: shown between looks, since it says nothing of any arm. */
function spreadWithinArms(design: TrialDesign, samples: Samples): PooledSpread[] {
	const arms = design.arms.filter((arm) => !arm.reference);
	return design.conditions.flatMap(({ id: condition }) =>
		METRIC_IDS.filter((metric) => design.primary.includes(metric)).flatMap((metric): PooledSpread[] => {
			const groups = arms
				.map((arm) =>
					samples
						.counted({ condition, armId: arm.id })
						.flatMap((load) => (load.figures[metric] !== null ? [load.figures[metric]!] : []))
				)
				.filter((group) => group.length >= 2);
			if (!groups.length) return [];
			const loads = groups.reduce((sum, group) => sum + group.length, 0);
			const spread = Math.sqrt(groups.reduce((sum, group) => sum + group.length * scaledMad(group) ** 2, 0) / loads);
			const middle = median(groups.flat());
			return [{ condition, metric, loads, spread, share: middle > 0 ? spread / middle : null }];
		})
	);
}
