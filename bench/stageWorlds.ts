/** Simulated stages for `bench/verdicts`: a page and a reference under several ideas of how the world drifts. */
import { noFigures } from '$core/metrics/catalogue';
import { normalFrom, seededRandom } from '$core/stats/random';
import { judge } from '$core/trial/judge/judge';
import { equalShare, stageLook } from '$core/trial/design/looks';
import type { TrialLoad } from '$core/trial/types';
import { anyCalled, designOf, FLIPS, looked, type Ended } from './verdictWorlds';

export interface StageWorld {
	/**
	 * How the second stage differs: times in proportion; something added; loads that meet a slow machine more often; or
	 * no stage at all, but a drift from round to round that nearly stays (AR(1) of 0.95).
	 */
	drift: 'proportion' | 'addition' | 'groups' | 'memory';
	size: number;
	noise: number;
	/** Middle figure of the reference, ms; the page's is 2,500. */
	reference: number;
	/** Of the page in the second stage, as a share. */
	shift: number;
	rounds: number;
	/** Stopped after the first round from the fourth on that would call. */
	stops: boolean;
}

const PAGE = 2500;
const SLOW = 1.25;
const MEMORY = 0.95;
const FEWEST = 4;

export function runDrifting(world: StageWorld, seed: number): Ended {
	const staged = designOf(2, { kind: 'before-after', rounds: world.rounds, seed, primary: ['lcp'] });
	const reference = { id: 3, name: 'Reference', url: 'http://r.test/', baseline: false, reference: true };
	const design = { ...staged, arms: [...staged.arms, reference] };
	const random = seededRandom(seed);
	const loads: TrialLoad[] = [];
	let memory = 0;
	const add = (armId: number, stage: number, round: number, middle: number) => {
		const figures = noFigures();
		figures.lcp = drifted(middle, world, stage, memory, random) * (1 + world.noise * normalFrom(random));
		const place = { armId, conditionId: design.conditions[0]!.id, stage, round, warmup: false };
		loads.push({ ...place, id: loads.length + 1, status: 'ok', disturbed: false, excluded: null, figures });
	};
	const answer = (rounds: number, by: 'plan' | 'stop'): Ended => ({
		judgement: judge(looked(design, stageLook(design, { stage: 1, share: equalShare(2), rounds, by })), loads, FLIPS),
		rounds
	});
	for (const stage of [0, 1])
		for (let round = 1; round <= world.rounds; round++) {
			memory = MEMORY * memory + Math.sqrt(1 - MEMORY ** 2) * world.size * normalFrom(random);
			add(stage + 1, stage, round, PAGE * (1 + stage * world.shift));
			add(3, stage, round, world.reference);
			if (!world.stops || stage === 0 || round < FEWEST || round === world.rounds) continue;
			const stopped = answer(round, 'stop');
			if (anyCalled(stopped.judgement)) return stopped;
		}
	return answer(world.rounds, 'plan');
}

function drifted(middle: number, world: StageWorld, stage: number, memory: number, random: () => number): number {
	const { drift, size } = world;
	if (drift === 'proportion') return middle * (1 + stage * size);
	if (drift === 'addition') return middle + (stage * size * PAGE) / 2;
	if (drift === 'memory') return middle * (1 + memory);
	return middle * (random() < 0.3 + stage * size * 3 ? SLOW : 1);
}
