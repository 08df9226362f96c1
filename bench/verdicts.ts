/**
 * How often the rule of judging is wrong, and how often it sees what is there. Simulated trials, seeded, on both
 * cores.
 */
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import type { MetricId } from '$core/metrics/catalogue';
import { judge } from '$core/trial/judge/judge';
import { nextLook } from '$core/trial/design/looks';
import { seededRandom } from '$core/stats/random';
import { mean } from '$core/stats/summary';
import { tallies } from './pool';
import { lcpCalled, nothing, sees, share, trial, world, type Cell, type Tally } from './verdictCells';
import { curse, drifts, watching } from './verdictHabits';
import { percent, printTable, type Row } from './table';
import {
	anyCalled,
	CALM,
	designOf,
	FLIPS,
	holdsZero,
	looked,
	primaryOf,
	runAdding,
	runAsSuggested,
	runExcluding,
	runStages,
	runStopping,
	runTrial,
	Simulation,
	type Ended,
	type World
} from './verdictWorlds';

const TRIALS = Number(process.env.BENCH_TRIALS ?? 2000);

const onlyLcp = { primary: ['lcp' as MetricId] };
const adaptive = { adaptive: true };

const habits: Cell[] = [
	nothing(
		'fixed 24, stopped after every second round from 6 until a call; one metric',
		(seed) => runStopping(designOf(2, { ...onlyLcp, rounds: 24 }), CALM, seed),
		false
	),
	nothing('the same, five metrics', (seed) => runStopping(designOf(2, { rounds: 24 }), CALM, seed), false),
	nothing(
		'adaptive, stopped between looks until a call; five metrics',
		(seed) => runStopping(designOf(2, adaptive), CALM, seed),
		false
	),
	nothing('12 rounds, then +6 up to 8 times; five metrics', (seed) => runAdding(designOf(2), CALM, seed, 6, 8), false),
	nothing(
		'12 rounds, then +4 up to 10 times; five metrics',
		(seed) => runAdding(designOf(2), CALM, seed, 4, 10),
		false
	),
	nothing(
		'12 rounds, then +6 up to 8 times; one metric',
		(seed) => runAdding(designOf(2, onlyLcp), CALM, seed, 6, 8),
		false
	),
	...[1, 2, 3].map((count) =>
		nothing(
			`${count} of the loads left out after looking, 12 rounds; one metric`,
			(seed) => runExcluding(designOf(2, onlyLcp), CALM, seed, count),
			false
		)
	),
	nothing('two devices, five metrics, 12 rounds', trial(designOf(2, { conditions: [...BUILT_IN_CONDITIONS] }), CALM)),
	...[2, 3, 4, 6, 12].map((loads) =>
		nothing(
			`before and after, reference page, world 8 % slower, ${loads} loads a stage`,
			(seed) => runStages(loads, 0.08, CALM, seed),
			false
		)
	),
	nothing(
		'the same, 4 loads, noise shared in the round (0.7)',
		(seed) => runStages(4, 0.08, world({ shared: 0.7 }), seed),
		false
	),
	{
		name: 'the same without a reference page: no verdict is given',
		run: (seed) => runStages(12, 0.08, CALM, seed, false),
		limit: 'none',
		holds: (tally) => tally.hits === 0 && tally.intervals === 0,
		show: (tally) => `${percent(share(tally))} called`
	}
];

const structures: Cell[] = [0.06, 0.12, 0.2].flatMap((noise) =>
	(['skewed', 'heavy'] as const).flatMap((kind) =>
		[0, 0.4, 0.7].map((shared) =>
			nothing(
				`${noise * 100} % noise, ${kind}, shared ${shared}; 2 arms, 12 rounds`,
				trial(designOf(2), world({ noise, kind, shared }))
			)
		)
	)
);
const odd: [string, Partial<World>][] = [
	['drift AR(1) of 20 %, memory 0.9', { drift: { spread: 0.2, memory: 0.9 } }],
	['one arm three times noisier', { noisyArm: 3, noise: 0.12 }],
	['half of the figures exactly alike', { exact: 0.5 }],
	['LCP flips between two elements', { flip: 0.5 }],
	['10 % of loads fail', { failures: 0.1 }]
];
const oddities = odd.flatMap(([name, more]) => [
	nothing(`${name}; 12 rounds`, trial(designOf(2), world(more))),
	nothing(`${name}; adaptive`, trial(designOf(2, adaptive), world(more)))
]);
const sizes = [4, 8].flatMap((arms) => [
	nothing(`${arms} arms, 12 rounds, 12 % noise`, trial(designOf(arms), world({ noise: 0.12 }))),
	nothing(`${arms} arms, adaptive, 12 % noise`, trial(designOf(arms, adaptive), world({ noise: 0.12 })))
]);
const two = [
	nothing('2 arms, adaptive, 20 % noise, shared 0.4', trial(designOf(2, adaptive), world({ noise: 0.2, shared: 0.4 }))),
	nothing(
		'2 arms, adaptive, two devices',
		trial(designOf(2, { ...adaptive, conditions: [...BUILT_IN_CONDITIONS] }), CALM)
	)
];

const TENTH = world({ kind: 'normal', shift: { lcp: 0.1, score: -0.1 } });
const power: Cell[] = [
	sees('LCP as one of five, 10 % shift, 6 % noise; 8 rounds', trial(designOf(2, { rounds: 8 }), TENTH), 0.34),
	sees('the same, 10 rounds', trial(designOf(2, { rounds: 10 }), TENTH), 0.57),
	sees('the same, 12 rounds', trial(designOf(2, { rounds: 12 }), TENTH), 0.72),
	sees(
		'the same, 12 rounds, 10 % of loads fail and are loaded again',
		trial(designOf(2, { rounds: 12 }), { ...TENTH, failures: 0.1 }),
		0.72
	)
];

const EIGHT_TENTHS = 0.8 * 0.2 * Math.SQRT2;
const NOISY = world({ noise: 0.2 });
const MOVED = world({ noise: 0.2, kind: 'normal', shift: { lcp: EIGHT_TENTHS, score: -EIGHT_TENTHS } });
const hope: Cell[] = [
	{
		name: 'adaptive, no difference, 20 % noise: rounds against 24',
		run: trial(designOf(2, adaptive), NOISY),
		limit: 'at least 25 % fewer',
		holds: (tally) => tally.rounds / tally.trials <= 18,
		show: (tally) => `${percent(1 - tally.rounds / tally.trials / 24)} fewer, ${percent(share(tally))} false`
	},
	{
		name: 'adaptive, LCP moved by 0.8 spreads: seen, and rounds',
		run: trial(designOf(2, adaptive), MOVED),
		hit: lcpCalled,
		limit: 'beside the next line',
		holds: () => true,
		show: (tally) => `${percent(share(tally))}, ${(tally.rounds / tally.trials).toFixed(1)} rounds`
	},
	{
		name: 'the same without stopping for lack of hope',
		run: (seed) => runTrial(designOf(2, adaptive), MOVED, seed, false),
		hit: lcpCalled,
		limit: 'at most 2 points more',
		holds: () => true,
		show: (tally) => `${percent(share(tally))}, ${(tally.rounds / tally.trials).toFixed(1)} rounds`
	}
];

/** Margin of LCP: 5 % of 2,400 ms. */
const MARGIN = 0.05;
const suggestions: Cell[] = [0, 0.5, 1, 1.5, 2].map((margins) => ({
	name: `rounds to decide, true shift of ${margins} margins, 6 % noise: decided within them`,
	run: (seed: number) =>
		runAsSuggested(designOf(2, onlyLcp), world({ kind: 'normal', shift: { lcp: margins * MARGIN } }), seed),
	hit: ({ judgement }: Ended) => primaryOf(judgement)[0]!.verdict !== 'undecided',
	limit: '70 to 95 %',
	holds: (tally: Tally) => share(tally) >= 0.7 && share(tally) <= 0.95,
	show: (tally: Tally) =>
		`${percent(share(tally))} of ${tally.trials} undecided, ${(tally.rounds / tally.trials).toFixed(0)} rounds`
}));

const CELLS = [
	...habits,
	...watching,
	...drifts,
	curse(true),
	curse(false),
	...structures,
	...oddities,
	...sizes,
	...two,
	...power,
	...hope,
	...suggestions
];

function tallyOf(cell: Cell): Tally {
	const tally: Tally = { trials: 0, hits: 0, intervals: 0, covered: 0, rounds: 0, extra: 0 };
	for (let i = 0; i < TRIALS; i++) {
		const ended = cell.run(i * 7919 + 1);
		if (!ended) continue;
		tally.trials++;
		tally.rounds += ended.rounds;
		tally.extra += cell.tallied?.(ended) ?? 0;
		if ((cell.hit ?? (({ judgement }) => anyCalled(judgement)))(ended)) tally.hits++;
		for (const result of primaryOf(ended.judgement).filter(({ shift }) => shift)) {
			tally.intervals++;
			if (holdsZero(result)) tally.covered++;
		}
	}
	return tally;
}

const wanted = process.env.BENCH_CELLS ? new RegExp(process.env.BENCH_CELLS) : null;
const indices = [...CELLS.keys()].filter((index) => !wanted || wanted.test(CELLS[index]!.name));
const found = await tallies(import.meta.url, indices, (index) => tallyOf(CELLS[index]!));
if (found) {
	const rows = indices.map((index): Row => {
		const [cell, tally] = [CELLS[index]!, found.get(index)!];
		return {
			what: cell.name,
			measured: (cell.show ?? ((own: typeof tally) => percent(share(own))))(tally),
			limit: cell.limit,
			holds: cell.holds(tally)
		};
	});
	const tallyNamed = (start: string) => found.get(CELLS.findIndex((cell) => cell.name.startsWith(start)));
	const [withHope, without] = [tallyNamed('adaptive, LCP moved'), tallyNamed('the same without stopping')];
	if (withHope && without)
		rows.push({
			what: 'calls lost by stopping for lack of hope',
			measured: `${((share(without) - share(withHope)) * 100).toFixed(1)} points`,
			limit: 'at most 2 points',
			holds: share(without) - share(withHope) <= 0.02
		});
	if (!wanted) rows.push(timing());
	printTable(
		`Verdicts: ${TRIALS} simulated trials a cell, ${FLIPS.toLocaleString('en-GB')} flips beyond 12 rounds`,
		rows
	);
	process.exit();
}

/** The largest trial that is promised: 8 arms, 24 rounds, 2 conditions, 15 metrics, with all flips. */
function timing(): Row {
	const many = [
		'score',
		'lcp',
		'cls',
		'tbt',
		'wire',
		'ttfb',
		'fcp',
		'start',
		'si',
		'vc',
		'dcl',
		'onload',
		'full',
		'decoded',
		'requests'
	] as MetricId[];
	const design = designOf(8, { rounds: 24, conditions: [...BUILT_IN_CONDITIONS] });
	const simulation = new Simulation(design, CALM, seededRandom(1));
	for (let round = 1; round <= 24; round++) simulation.round(round);
	const random = seededRandom(2);
	const loads = simulation.loads.map((load) => ({
		...load,
		figures: {
			...Object.fromEntries(many.map((metric) => [metric, 1000 * (1 + 0.05 * random())])),
			...Object.fromEntries(Object.entries(load.figures).filter(([, value]) => value !== null))
		} as typeof load.figures
	}));
	const now = looked(design, nextLook(design, 24, 'plan'));
	const times = Array.from({ length: 10 }, () => {
		const from = performance.now();
		judge(now, loads);
		return performance.now() - from;
	}).slice(2);
	return {
		what: 'judging 8 arms x 24 rounds x 2 conditions x 15 metrics, 10,000 flips',
		measured: `${mean(times).toFixed(0)} ms`,
		limit: 'under 400 ms',
		holds: mean(times) < 400
	};
}
