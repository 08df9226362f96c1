/**
 * Simulated trials for `bench/verdicts`: worlds of noise, and the habits of analysts who look, stop, add and leave
 * out.
 */
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import { noFigures, type MetricId } from '$core/metrics/catalogue';
import { normalFrom, seededRandom, type Random } from '$core/stats/random';
import { judge } from '$core/trial/judge/judge';
import { equalShare, isDecided, isHopeless, isLookDue, nextLook, stageLook } from '$core/trial/design/looks';
import { MOST_ROUNDS } from '$core/trial/judge/verdict';
import type { Judgement, Look, ShiftResult, TrialDesign, TrialLoad } from '$core/trial/types';

/** Joint tests of long trials take a choice of flips; the product takes ten times as many. */
export const FLIPS = 1000;
export const PRIMARY: readonly MetricId[] = ['score', 'lcp', 'cls', 'tbt', 'wire'];
const MIDDLES: Partial<Record<MetricId, number>> = { score: 70, lcp: 2400, cls: 0.2, tbt: 600, wire: 900_000 };

export interface World {
	/** Coefficient of variation of a load. */
	noise: number;
	kind: 'normal' | 'skewed' | 'heavy';
	/** Correlation of the arms of a round. */
	shared: number;
	/** Drift from round to round, as a share: AR(1) with this spread and memory. */
	drift: { spread: number; memory: number };
	/** How many times noisier the last arm is. */
	noisyArm: number;
	/** Share of loads whose figure is just the middle one: differences of exactly zero. */
	exact: number;
	/** Share of loads whose LCP is another, later element. */
	flip: number;
	/** Share of loads that fail at random. */
	failures: number;
	/** Correlation of score (with the opposite sign) and LCP. */
	scoreLcp: number;
	/** The shift is the last arm's alone; the rest are alike. */
	oneApart?: boolean;
	/** In every arm but the baseline, as a share. */
	shift: Partial<Record<MetricId, number>>;
}

export const CALM: World = {
	noise: 0.06,
	kind: 'skewed',
	shared: 0,
	drift: { spread: 0, memory: 0 },
	noisyArm: 1,
	exact: 0,
	flip: 0,
	failures: 0,
	scoreLcp: 0.98,
	shift: {}
};

export function designOf(arms: number, more: Partial<TrialDesign> = {}): TrialDesign {
	return {
		kind: 'side-by-side',
		arms: Array.from({ length: arms }, (_, i) => ({
			id: i + 1,
			name: `Arm ${i + 1}`,
			url: 'http://a.test/',
			baseline: i === 0,
			reference: false
		})),
		conditions: [BUILT_IN_CONDITIONS[1]!],
		rounds: more.adaptive ? 24 : 12,
		warmups: 0,
		seed: 1,
		primary: [...PRIMARY],
		...more
	};
}

function deviate(random: Random, kind: World['kind']): number {
	if (kind === 'normal') return normalFrom(random);
	// Student's t with 3 degrees of freedom, scaled to a standard deviation of 1.
	if (kind === 'heavy')
		return (
			normalFrom(random) /
			Math.sqrt((normalFrom(random) ** 2 + normalFrom(random) ** 2 + normalFrom(random) ** 2) / 3) /
			Math.sqrt(3)
		);
	const outlier = random() < 0.03 ? 5 * random() : 0;
	return 0.6 * normalFrom(random) - 0.8 * (Math.log(1 - random()) + 1) + outlier;
}

/** Makes the loads of a trial, round by round. */
export class Simulation {
	readonly loads: TrialLoad[] = [];
	#drift = 0;

	constructor(
		readonly design: TrialDesign,
		private readonly world: World,
		private readonly random: Random
	) {}

	/** One round of some arms; a load that fails is tried twice more, as the lab does. */
	round(round: number, arms = this.design.arms, stage = 0, more: number = 0): void {
		const { drift } = this.world;
		this.#drift =
			drift.memory * this.#drift + Math.sqrt(1 - drift.memory ** 2) * drift.spread * normalFrom(this.random);
		for (const { id: conditionId } of this.design.conditions) {
			const common = Object.fromEntries(
				this.design.primary.map((metric) => [metric, deviate(this.random, this.world.kind)])
			);
			for (const arm of arms) {
				const place = { armId: arm.id, conditionId, stage, round, warmup: false, disturbed: false, excluded: null };
				for (let tries = 0; tries < 3; tries++) {
					const failed = this.random() < this.world.failures;
					const isUnshifted = arm.baseline || arm.reference || (this.world.oneApart && !this.#isLast(arm.id));
					const figures = failed ? noFigures() : this.#figures(arm.id, Boolean(isUnshifted), common, more);
					this.loads.push({ ...place, id: this.loads.length + 1, status: failed ? 'failed' : 'ok', figures });
					if (!failed) break;
				}
			}
		}
	}

	#isLast(armId: number): boolean {
		return armId === this.design.arms.length;
	}

	#figures(armId: number, unshifted: boolean, common: Record<string, number>, more: number) {
		const { noise, kind, shared, exact, flip, noisyArm, scoreLcp, shift } = this.world;
		const figures = noFigures();
		const size = noise * (this.#isLast(armId) ? noisyArm : 1);
		const own = Object.fromEntries(this.design.primary.map((metric) => [metric, deviate(this.random, kind)]));
		own.score = -scoreLcp * (own.lcp ?? 0) + Math.sqrt(1 - scoreLcp ** 2) * (own.score ?? 0);
		const together = {
			...common,
			score: -scoreLcp * (common.lcp ?? 0) + Math.sqrt(1 - scoreLcp ** 2) * (common.score ?? 0)
		};
		for (const metric of this.design.primary) {
			const error =
				this.random() < exact
					? 0
					: Math.sqrt(shared) * (together as Record<string, number>)[metric]! + Math.sqrt(1 - shared) * own[metric]!;
			const other = metric === 'lcp' && this.random() < flip ? 0.4 : 0;
			figures[metric] =
				MIDDLES[metric]! * (1 + this.#drift + more + size * error + other + (unshifted ? 0 : (shift[metric] ?? 0)));
		}
		return figures;
	}
}

export interface Ended {
	judgement: Judgement;
	rounds: number;
}

/** As the lab runs a trial: to its end, or to the look at which all is decided or nothing has hope. */
export function runTrial(design: TrialDesign, world: World, seed: number, mayLoseHope = true): Ended {
	const simulation = new Simulation({ ...design, seed }, world, seededRandom(seed));
	let now = simulation.design;
	for (let round = 1; round <= now.rounds; round++) {
		simulation.round(round);
		const ends = round === now.rounds;
		if (!ends && !isLookDue(now, round)) continue;
		now = looked(now, nextLook(now, round, 'plan'));
		const judgement = judge(now, simulation.loads, FLIPS);
		if (ends || isDecided(judgement) || (mayLoseHope && isHopeless(judgement))) return { judgement, rounds: round };
	}
	throw new Error('A trial has at least one round.');
}

export const looked = (design: TrialDesign, look: Look): TrialDesign => ({
	...design,
	looks: [...(design.looks ?? []), look]
});

/**
 * Stops after every other round from the sixth on, and starts again unless something was called. A call once made
 * stays,
 * so that all looks can be judged at once.
 */
export function runStopping(design: TrialDesign, world: World, seed: number): Ended {
	const simulation = new Simulation({ ...design, seed }, world, seededRandom(seed));
	let now = simulation.design;
	for (let round = 1; round <= design.rounds; round++) {
		simulation.round(round);
		const isPlanned = round === design.rounds || isLookDue(now, round);
		if (isPlanned || (round >= 6 && round % 2 === 0))
			now = looked(now, nextLook(now, round, isPlanned ? 'plan' : 'stop'));
	}
	return { judgement: judge(now, simulation.loads, FLIPS), rounds: design.rounds };
}

/**
 * Loads are read as they come, and the trial is stopped at the first round from the sixth on that would call; else it
 * goes on to its planned looks.
 */
export function runWatching(design: TrialDesign, world: World, seed: number): Ended {
	const simulation = new Simulation({ ...design, seed }, world, seededRandom(seed));
	let now = simulation.design;
	for (let round = 1; round <= now.rounds; round++) {
		simulation.round(round);
		if (round < 6) continue;
		const isPlanned = round === now.rounds || isLookDue(now, round);
		const then = looked(now, nextLook(now, round, isPlanned ? 'plan' : 'stop'));
		if (isPlanned) now = then;
		const judgement = judge(then, simulation.loads, FLIPS);
		if (round === now.rounds || anyCalled(judgement)) return { judgement, rounds: round };
	}
	throw new Error('A trial has at least six rounds.');
}

/**
 * A fixed trial that ends undecided gets the rounds that it asks for.
 * @returns null when it was decided at once, or when it is told that more than 200 would be needed
 */
export function runAsSuggested(
	design: TrialDesign,
	world: World,
	seed: number
): (Ended & { suggested: number }) | null {
	const simulation = new Simulation({ ...design, seed }, world, seededRandom(seed));
	for (let round = 1; round <= design.rounds; round++) simulation.round(round);
	const first = looked(simulation.design, nextLook(simulation.design, design.rounds, 'plan'));
	const open = primaryOf(judge(first, simulation.loads, FLIPS)).find((result) => result.verdict === 'undecided');
	if (!open || open.roundsNeeded! > MOST_ROUNDS) return null;
	const suggested = open.roundsNeeded!;
	for (let round = design.rounds + 1; round <= suggested; round++) simulation.round(round);
	const longer = { ...first, rounds: suggested };
	return {
		judgement: judge(looked(longer, nextLook(longer, suggested, 'added')), simulation.loads, FLIPS),
		rounds: suggested,
		suggested
	};
}

/** Adds rounds as long as nothing was called; all looks are judged at once. */
export function runAdding(design: TrialDesign, world: World, seed: number, more: number, times: number): Ended {
	const simulation = new Simulation({ ...design, seed }, world, seededRandom(seed));
	let now = simulation.design;
	let round = 0;
	for (let added = 0; added <= times; added++) {
		while (round < now.rounds) simulation.round(++round);
		now = looked(now, nextLook(now, round, added ? 'added' : 'plan'));
		if (added < times) now = { ...now, rounds: now.rounds + more };
	}
	return { judgement: judge(now, simulation.loads, FLIPS), rounds: round };
}

/** Leaves out the loads that speak most against what LCP seems to show, and reads the verdict again. */
export function runExcluding(design: TrialDesign, world: World, seed: number, count: number): Ended {
	const simulation = new Simulation({ ...design, seed }, world, seededRandom(seed));
	for (let round = 1; round <= design.rounds; round++) simulation.round(round);
	const lcp = (armId: number, round: number) =>
		simulation.loads.find((load) => load.armId === armId && load.round === round)!;
	const differences = Array.from({ length: design.rounds }, (_, i) => ({
		load: lcp(2, i + 1),
		by: lcp(2, i + 1).figures.lcp! - lcp(1, i + 1).figures.lcp!
	}));
	const direction = Math.sign(differences.reduce((sum, { by }) => sum + by, 0));
	differences.sort((a, b) => direction * (a.by - b.by));
	for (const { load } of differences.slice(0, count)) load.excluded = 'It does not suit.';
	const now = looked(simulation.design, nextLook(simulation.design, design.rounds, 'plan'));
	return { judgement: judge(now, simulation.loads, FLIPS), rounds: design.rounds };
}

/** Two stages, the world slower in the second one, with a reference page. */
export function runStages(rounds: number, slower: number, world: World, seed: number, reference = true): Ended {
	const staged = designOf(2, { kind: 'before-after', rounds, seed, primary: ['lcp'] });
	const arms = reference
		? [...staged.arms, { id: 3, name: 'Reference', url: 'http://r.test/', baseline: false, reference: true }]
		: staged.arms;
	const design = { ...staged, arms };
	const simulation = new Simulation(design, world, seededRandom(seed));
	for (const stage of [0, 1])
		for (let round = 1; round <= rounds; round++)
			simulation.round(round, [arms[stage]!, ...arms.slice(2)], stage, stage * slower);
	const judgement = judge(
		looked(design, stageLook(design, { stage: 1, share: equalShare(2), rounds, by: 'plan' })),
		simulation.loads,
		FLIPS
	);
	return { judgement, rounds };
}

export const isCalled = ({ verdict }: Pick<ShiftResult, 'verdict'>) =>
	verdict === 'better' || verdict === 'worse' || verdict === 'slight';
export const primaryOf = ({ results }: Judgement) => results.filter((result) => result.primary);
export const anyCalled = (judgement: Judgement) => primaryOf(judgement).some(isCalled);
export const holdsZero = ({ shift }: ShiftResult) => shift!.low === null || (shift!.low <= 0 && shift!.high! >= 0);
