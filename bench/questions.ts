/**
 * Questions that several comparisons answer: how often anything that is said is wrong, and how often what is there is
 * seen. Simulated trials, seeded, on both cores.
 */
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import { stepShare } from '$core/trial/design/log';
import { nextLook, stageLook } from '$core/trial/design/looks';
import { judge } from '$core/trial/judge/judge';
import { bestOf, placesOf } from '$core/trial/judge/places';
import { seededRandom } from '$core/stats/random';
import type { Judgement, ShiftResult, TrialArm, TrialDesign } from '$core/trial/types';
import { mean, median } from '$core/stats/summary';
import { tallies } from './pool';
import { percent, printTable, type Row } from './table';
import {
	CALM,
	designOf,
	isCalled,
	looked,
	runAdding,
	runStopping,
	runTrial,
	Simulation,
	type Ended,
	type World
} from './verdictWorlds';
import { world } from './verdictCells';

const TRIALS = Number(process.env.BENCH_TRIALS ?? 2000);
const MOST_FALSE = 0.055;

interface Cell {
	name: string;
	limit: string;
	/** Whether what is counted happened in the trial of a seed. */
	happens(seed: number): boolean;
	holds(share: number): boolean;
}

const best = (arms: number, more: Partial<TrialDesign> = {}) => designOf(arms, { aim: 'best', ...more });
const primaryPairs = ({ judgement }: Ended): ShiftResult[] => judgement.everyPair!.filter(({ primary }) => primary);

/** Candidates whose figures come from one distribution; the last one may stand apart. */
const areAlike = ({ oneApart }: World, { baseline, arm }: ShiftResult, arms: number) =>
	!oneApart || (baseline !== arms && arm !== arms);

/** A difference is told of two that are alike, or one of those that are alike is named the best. */
function isFalse(ended: Ended, at: World, arms: number): boolean {
	const everyPair = primaryPairs(ended);
	const named = bestOf(best(arms), everyPair);
	const mayBeBest = at.oneApart ? arms : null;
	return (
		everyPair.some((result) => areAlike(at, result, arms) && isCalled(result)) ||
		(named.kind === 'best' && named.arm !== mayBeBest)
	);
}

const quiet = (name: string, arms: number, at: World, run: (seed: number) => Ended, isShown = false): Cell => ({
	name,
	limit: isShown ? 'shown' : 'at most 5.5 %',
	happens: (seed) => isFalse(run(seed), at, arms),
	holds: (share) => isShown || share <= MOST_FALSE
});

const FASTER = { lcp: -0.15, score: 0.15, tbt: -0.15 };
const fixed = (name: string, arms: number, at: World, more: Partial<TrialDesign> = {}, isShown = false) =>
	quiet(name, arms, at, (seed) => runTrial(best(arms, more), at, seed), isShown);

const bestCells: Cell[] = [
	...[3, 5, 8].flatMap((arms) => [
		fixed(`${arms} alike, 12 rounds`, arms, CALM),
		fixed(`${arms}, one 15 % better, the rest alike`, arms, world({ oneApart: true, shift: FASTER })),
		fixed(
			`${arms}, one twice as good, the rest alike`,
			arms,
			world({ oneApart: true, shift: { lcp: -0.5, score: 0.5, tbt: -0.5, cls: -0.5, wire: -0.5 } })
		),
		fixed(`${arms} alike, one three times as noisy, symmetric`, arms, world({ kind: 'normal', noisyArm: 3 })),
		fixed(`${arms} alike, one three times as noisy, heavy tails`, arms, world({ kind: 'heavy', noisyArm: 3 })),
		fixed(`${arms} alike, one three times as noisy, skewed`, arms, world({ kind: 'skewed', noisyArm: 3 }), {}, true)
	]),
	fixed('3 alike, two devices', 3, CALM, { conditions: [...BUILT_IN_CONDITIONS] }),
	fixed('3 alike, noise shared in the round (0.7)', 3, world({ shared: 0.7 })),
	fixed('3 alike, half of the figures identical', 3, world({ exact: 0.5 })),
	fixed('3 alike, 10 % of loads fail', 3, world({ failures: 0.1 })),
	fixed('3 alike, adaptive', 3, CALM, { adaptive: true, rounds: 24 }),
	quiet('3 alike, stopped after every second round until a call', 3, CALM, (seed) =>
		runStopping(best(3, { rounds: 24 }), CALM, seed)
	),
	quiet('5 alike, stopped after every second round until a call', 5, CALM, (seed) =>
		runStopping(best(5, { rounds: 24 }), CALM, seed)
	),
	quiet('3, one apart, stopped after every second round', 3, world({ oneApart: true, shift: FASTER }), (seed) =>
		runStopping(best(3, { rounds: 24 }), world({ oneApart: true, shift: FASTER }), seed)
	),
	quiet('3 alike, 12 rounds, then +6 up to 4 times', 3, CALM, (seed) => runAdding(best(3), CALM, seed, 6, 4)),
	{
		name: '3, one 15 % better at 6 % noise, 14 rounds: named first in LCP',
		limit: 'at least 80 %',
		happens: (seed) =>
			placesOf(
				runTrial(best(3, { rounds: 14 }), world({ oneApart: true, shift: FASTER }), seed).judgement.everyPair!
			).some(({ metric, arm, from, to }) => metric === 'lcp' && arm === 3 && from === 1 && to === 1),
		holds: (share) => share >= 0.8
	},
	{
		name: 'the same: named the best over all five metrics',
		limit: 'shown',
		happens: (seed) => {
			const { judgement } = runTrial(best(3, { rounds: 14 }), world({ oneApart: true, shift: FASTER }), seed);
			const said = bestOf(best(3), judgement.everyPair!);
			return said.kind === 'best' && said.arm === 3;
		},
		holds: () => true
	}
];

/** A log is made to its end; all looks are judged at once, as a call once made stays. */
interface LogHabits {
	planned: number;
	steps: number;
	rounds: number;
	/** Each stage is stopped after every second round, and gone on with. */
	isStopped?: boolean;
	/** A step is taken back whenever its LCP looked worse than before it: what the next is held against is chosen so. */
	takesBack?: boolean;
	/** By so much slower is the world at each further stage. */
	slower?: number;
	/** Further pages, loaded in every stage and judged with the log's own. */
	pages?: number;
}

/** Enough for shares of a sixth of a per cent. */
const DEALS = 4000;

function runLog(
	{ planned, steps, rounds, isStopped, takesBack, slower = 0, pages = 0 }: LogHabits,
	at: World,
	seed: number
): Judgement {
	const plain = designOf(2, { kind: 'before-after', rounds, seed, plannedSteps: planned });
	const [start] = plain.arms as [TrialArm];
	const reference = { ...start, id: 2, name: 'Reference', baseline: false, reference: true };
	const stages = [
		start,
		...Array.from({ length: steps }, (_, i): TrialArm => ({
			...start,
			id: 3 + i,
			name: `Step ${i + 1}`,
			baseline: false
		}))
	];
	const sample = Array.from({ length: pages }, (_, i): TrialArm => ({
		...reference,
		id: 100 + i,
		name: `Page ${i + 2}`,
		page: `/${i + 2}`
	}));
	const simulation = new Simulation({ ...plain, arms: [...stages, reference, ...sample] }, at, seededRandom(seed));
	const lcpOf = (arm: TrialArm) =>
		median(
			simulation.loads
				.filter((load) => load.armId === arm.id && load.status === 'ok')
				.map(({ figures }) => figures.lcp!)
		);
	let now: TrialDesign = simulation.design;
	stages.forEach((arm, stage) => {
		const [before, last] = [stages[stage - 2], stages[stage - 1]];
		if (takesBack && before && last!.undoes == null && lcpOf(last!) > lcpOf(before)) arm.undoes = last!.id;
		for (let round = 1; round <= rounds; round++) {
			simulation.round(round, [arm, reference, ...sample], stage, stage * slower);
			const isWhole = round === rounds;
			if (stage === 0 || (!isWhole && !(isStopped && round >= 6 && round % 2 === 0))) continue;
			const share = stepShare(now, { stage, against: 'both' });
			now = looked(now, stageLook(now, { stage, share, rounds: round, by: isWhole ? 'plan' : 'stop' }));
		}
	});
	return judge(now, simulation.loads, DEALS);
}

const allOf = ({ results, steps = [], samplePages = { start: [], previous: [] } }: Judgement) =>
	[...results, ...steps, ...samplePages.start, ...samplePages.previous].filter(({ primary }) => primary);

const log = (name: string, habits: LogHabits, at: World = CALM): Cell => ({
	name,
	limit: 'at most 5.5 %',
	happens: (seed) => allOf(runLog(habits, at, seed)).some(isCalled),
	holds: (share) => share <= MOST_FALSE
});

/** The second step of four moves LCP, and with it the score: called against the step before. */
const step = (by: number, least: number | null): Cell => ({
	name: `log of 4, a step of ${by * 100} % at 6 % noise, 10 rounds, five metrics, independent reference: called`,
	limit: least === null ? 'shown' : `at least ${percent(least, 0)}`,
	happens: (seed) =>
		runLog(
			{ planned: 4, steps: 2, rounds: 10 },
			world({ kind: 'normal', oneApart: true, shift: { lcp: -by, score: by } }),
			seed
		).steps!.some((result) => result.arm === 4 && result.metric === 'lcp' && isCalled(result)),
	holds: (share) => least === null || share >= least
});

const logCells: Cell[] = [
	log('log of 4 steps without effect, 10 rounds', { planned: 4, steps: 4, rounds: 10 }),
	log('log of 4 steps without effect, 6 rounds', { planned: 4, steps: 4, rounds: 6 }),
	log('log of 12 steps without effect, 7 rounds', { planned: 12, steps: 12, rounds: 7 }),
	log('log of 12 steps without effect, 10 rounds', { planned: 12, steps: 12, rounds: 10 }),
	log('log of 4 steps, each stopped after every second round', { planned: 4, steps: 4, rounds: 10, isStopped: true }),
	log('log of 4 steps on 3 pages', { planned: 4, steps: 4, rounds: 10, pages: 2 }),
	log('log of 4 steps on 3 pages, each stopped', { planned: 4, steps: 4, rounds: 10, pages: 2, isStopped: true }),
	log('log of 4 steps, 4 added', { planned: 4, steps: 8, rounds: 10 }),
	log('log of 4 steps, 4 added, each stopped', { planned: 4, steps: 8, rounds: 10, isStopped: true }),
	log('log of 4 steps, each that looks worse taken back', { planned: 4, steps: 4, rounds: 10, takesBack: true }),
	log('log of 12 steps, each that looks worse taken back', { planned: 12, steps: 12, rounds: 7, takesBack: true }),
	log('log of 4 steps, the world 8 % slower at each', { planned: 4, steps: 4, rounds: 10, slower: 0.08 }),
	log(
		'the same, skewed and drifting from round to round',
		{ planned: 4, steps: 4, rounds: 10, slower: 0.08 },
		world({ drift: { spread: 0.1, memory: 0.9 } })
	),
	log('log of 4 steps, noise shared in the round (0.7)', { planned: 4, steps: 4, rounds: 10 }, world({ shared: 0.7 })),
	log('log of 4 steps, heavy tails', { planned: 4, steps: 4, rounds: 10 }, world({ kind: 'heavy' })),
	log('log of 4 steps, 10 % of loads fail', { planned: 4, steps: 4, rounds: 10 }, world({ failures: 0.1 })),
	step(0.2, 0.75),
	step(0.15, null)
];

const CELLS = [...bestCells, ...logCells];
const wanted = process.env.BENCH_CELLS ? new RegExp(process.env.BENCH_CELLS) : null;
const indices = [...CELLS.keys()].filter((index) => !wanted || wanted.test(CELLS[index]!.name));

function shareOf({ happens }: Cell): number {
	let count = 0;
	for (let i = 0; i < TRIALS; i++) count += Number(happens(i * 7919 + 1));
	return count / TRIALS;
}

const found = await tallies(import.meta.url, indices, (index) => {
	const share = shareOf(CELLS[index]!);
	// It takes long: what is known so far can be read.
	console.error(`${CELLS[index]!.name}: ${percent(share)}`);
	return share;
});
if (found) {
	const rows = indices.map((index): Row => {
		const { name, limit, holds } = CELLS[index]!;
		return { what: name, measured: percent(found.get(index)!), limit, holds: holds(found.get(index)!) };
	});
	if (!wanted) rows.push(timing());
	printTable(`Questions: ${TRIALS} simulated trials a cell`, rows);
	process.exit();
}

/** The largest trial that asks which is best: 8 candidates, 24 rounds, 2 conditions, 5 metrics. */
function timing(): Row {
	const design = best(8, { rounds: 24, conditions: [...BUILT_IN_CONDITIONS] });
	const simulation = new Simulation(design, CALM, seededRandom(1));
	for (let round = 1; round <= 24; round++) simulation.round(round);
	const now = looked(design, nextLook(design, 24, 'plan'));
	const times = Array.from({ length: 6 }, () => {
		const from = performance.now();
		judge(now, simulation.loads);
		return performance.now() - from;
	}).slice(1);
	return {
		what: 'judging 8 candidates, all pairs, 24 rounds, 2 conditions, 5 metrics',
		measured: `${mean(times).toFixed(0)} ms`,
		limit: 'under 1 s',
		holds: mean(times) < 1000
	};
}
