/** What a cell of `bench/verdicts` is: simulated trials, what counts as a hit among them, and what must hold. */
import type { TrialDesign } from '$core/trial/types';
import { percent } from './table';
import { CALM, isCalled, runTrial, type Ended, type World } from './verdictWorlds';

export interface Tally {
	trials: number;
	/** Trials with any false call, or with the call that is looked for. */
	hits: number;
	intervals: number;
	covered: number;
	rounds: number;
	/** Whatever a cell adds up besides. */
	extra: number;
}

export interface Cell {
	name: string;
	run(seed: number): Ended | null;
	/** What counts as a hit; any call by default. */
	hit?: (ended: Ended) => boolean;
	tallied?: (ended: Ended) => number;
	limit: string;
	holds(tally: Tally): boolean;
	show?(tally: Tally): string;
}

export const share = ({ hits, trials }: Tally) => hits / trials;
const coverage = ({ covered, intervals }: Tally) => covered / intervals;
/** No difference anywhere: false calls, and intervals that hold zero. */
export const nothing = (name: string, run: Cell['run'], coverageLimit = true): Cell => ({
	name,
	run,
	limit: coverageLimit ? 'at most 5.5 %; 94 to 99 %' : 'at most 5.5 %',
	// Intervals at few rounds can only be wider than asked for.
	holds: (tally) => share(tally) <= 0.055 && (!coverageLimit || (coverage(tally) >= 0.94 && coverage(tally) <= 0.995)),
	show: (tally) =>
		`${percent(share(tally))} false; ${tally.intervals ? `intervals hold zero in ${percent(coverage(tally))}` : 'no verdict given'}`
});
export const lcpCalled = ({ judgement }: Ended) =>
	judgement.results.some((result) => result.metric === 'lcp' && isCalled(result));
export const sees = (name: string, run: Cell['run'], least: number): Cell => ({
	name,
	run,
	hit: lcpCalled,
	limit: `at least ${percent(least, 0)}`,
	holds: (tally) => share(tally) >= least,
	show: (tally) => percent(share(tally))
});
export const world = (more: Partial<World>): World => ({ ...CALM, ...more });
export const trial = (design: TrialDesign, world: World) => (seed: number) => runTrial(design, world, seed);
