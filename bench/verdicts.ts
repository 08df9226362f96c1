/** How often the rule of judging is wrong, and how often it sees what is there. Simulated trials, seeded. */
import { BUILT_IN_CONDITIONS } from '../src/core/load/conditions';
import { noFigures, type MetricId } from '../src/core/metrics/catalogue';
import { mean } from '../src/core/stats/summary';
import { normalFrom, seededRandom, type Random } from '../src/core/stats/random';
import { judge } from '../src/core/trial/judge';
import { isDecided, LOOKS } from '../src/core/trial/looks';
import type { Judgement, ShiftResult, TrialDesign, TrialLoad } from '../src/core/trial/types';
import { percent, printTable, type Row } from './table';

const TRIALS = Number(process.env.BENCH_TRIALS ?? 5000);
/** The bootstrap costs some 100 ms a trial. */
const STAGED_TRIALS = Math.min(TRIALS, 400);
const MIDDLES: Partial<Record<MetricId, number>> = { score: 70, lcp: 2400, cls: 0.2, tbt: 600, wire: 900_000 };
const PRIMARY = Object.keys(MIDDLES) as MetricId[];

function designOf(arms: number, more: Partial<TrialDesign> = {}): TrialDesign {
	return {
		kind: 'side-by-side',
		arms: Array.from({ length: arms }, (_, i) => ({ id: i + 1, name: `Arm ${i + 1}`, url: 'http://a.test/', baseline: i === 0, reference: false })),
		conditions: [BUILT_IN_CONDITIONS[1]!],
		rounds: 12,
		warmups: 0,
		seed: 1,
		primary: PRIMARY,
		...more
	};
}

/** Right-skewed, as load times are: a normal part and an exponential tail; three loads in a hundred far out. */
function skewed(random: Random): number {
	const outlier = random() < 0.03 ? 5 * random() : 0;
	return 0.6 * normalFrom(random) - 0.8 * (Math.log(1 - random()) + 1) + outlier;
}

interface World {
	noise: number;
	drift: number;
	/** Of each metric, as a share, in every arm but the baseline. */
	shift: Partial<Record<MetricId, number>>;
	kind: (random: Random) => number;
}

function roundOf(random: Random, design: TrialDesign, round: number, { noise, drift, shift, kind }: World): TrialLoad[] {
	const common = drift * normalFrom(random);
	return design.arms.map((arm): TrialLoad => {
		const figures = noFigures();
		for (const metric of design.primary) figures[metric] = MIDDLES[metric]! * (1 + common + noise * kind(random)) * (1 + (arm.baseline ? 0 : (shift[metric] ?? 0)));
		return { id: round * 100 + arm.id, armId: arm.id, conditionId: 'desktop', stage: 0, round, warmup: false, status: 'ok', excluded: null, figures };
	});
}

/** Run a trial to its end as the runner would. @returns the last judgement and the rounds it took */
function run(random: Random, design: TrialDesign, world: World): { judgement: Judgement; rounds: number } {
	const loads: TrialLoad[] = [];
	for (let round = 1; round <= design.rounds; round++) {
		loads.push(...roundOf(random, design, round, world));
		if (!design.adaptive || !(LOOKS as readonly number[]).includes(round)) continue;
		const judgement = judge(design, loads);
		if (isDecided(judgement) || round === design.rounds) return { judgement, rounds: round };
	}
	return { judgement: judge(design, loads), rounds: design.rounds };
}

const isCalled = ({ verdict }: Pick<ShiftResult, 'verdict'>) => verdict === 'better' || verdict === 'worse' || verdict === 'slight';
const primaryOf = ({ results }: Judgement) => results.filter((one) => one.primary);
const holdsZero = ({ shift }: ShiftResult) => shift!.low === null || (shift!.low <= 0 && shift!.high! >= 0);
const random = seededRandom(20_261_125);
const rows: Row[] = [];
const NULL: World = { noise: 0.06, drift: 0.05, shift: {}, kind: skewed };

for (const arms of [2, 4, 8])
	for (const adaptive of [false, true]) {
		const design = designOf(arms, adaptive ? { adaptive, rounds: 24 } : {});
		let families = 0;
		let covered = 0;
		let all = 0;
		for (let i = 0; i < TRIALS; i++) {
			const { judgement } = run(random, design, NULL);
			const told = primaryOf(judgement);
			if (told.some(isCalled)) families++;
			covered += told.filter(holdsZero).length;
			all += told.length;
		}
		const name = `${arms} arms, ${adaptive ? 'adaptive' : 'fixed, 12 rounds'}, A/A`;
		rows.push({ what: `${name}: trials with any false verdict`, measured: percent(families / TRIALS, 2), limit: 'at most 5.5 %', holds: families / TRIALS <= 0.055 });
		// Twelve pairs allow 95.1 %; the looks are at 98.42 %.
		const [low, high] = adaptive ? [0.975, 1] : [0.94, 0.98];
		rows.push({ what: `${name}: intervals that hold zero`, measured: percent(covered / all, 2), limit: adaptive ? 'at least 97.5 %' : '94 to 98 %', holds: covered / all >= low && covered / all <= high });
	}

const added = { families: 0, seen: 0 };
for (let i = 0; i < TRIALS; i++) {
	const design = designOf(2);
	const loads: TrialLoad[] = [];
	for (let round = 1; round <= 12; round++) loads.push(...roundOf(random, design, round, NULL));
	let last = judge(design, loads);
	// The analyst asks for six more rounds only where nothing was called: the least favourable habit.
	if (!primaryOf(last).some(isCalled)) {
		for (let round = 13; round <= 18; round++) loads.push(...roundOf(random, design, round, NULL));
		last = judge({ ...design, rounds: 18, looks: [12] }, loads);
	} else added.seen++;
	if (primaryOf(last).some(isCalled)) added.families++;
}
rows.push({ what: 'six rounds added wherever nothing was called: trials with any false verdict', measured: percent(added.families / TRIALS, 2), limit: 'for the record', holds: true });

const power = (design: TrialDesign, shift: World['shift']) => {
	let seen = 0;
	let loads = 0;
	// Trials without looks are cheap.
	const trials = design.adaptive ? TRIALS : 5000;
	for (let i = 0; i < trials; i++) {
		const { judgement, rounds } = run(random, design, { noise: 0.06, drift: 0.05, shift, kind: normalFrom });
		if (judgement.results.some((one) => one.metric === 'lcp' && isCalled(one))) seen++;
		loads += rounds;
	}
	return { seen: seen / trials, rounds: loads / trials };
};
const twelve = power(designOf(2, { primary: ['lcp'] }), { lcp: 0.1 });
rows.push({ what: '10 % shift of the one primary metric, 12 rounds: seen', measured: percent(twelve.seen), limit: 'at least 90 %', holds: twelve.seen >= 0.9 });
rows.push({ what: 'the same where it is one of five that share the level (Holm)', measured: percent(power(designOf(2), { lcp: 0.1 }).seen), limit: 'for the record', holds: true });
for (const share of [0.15, 0.2, 0.3]) {
	const one = power(designOf(2, { adaptive: true, rounds: 24, primary: ['lcp'] }), { lcp: share });
	rows.push({ what: `adaptive, LCP alone, shift of ${share * 100} %: loads against a fixed 24 rounds (seen ${percent(one.seen)})`, measured: `${percent(1 - one.rounds / 24)} fewer`, limit: 'at least 25 % fewer', holds: one.rounds <= 18 });
}
const five = power(designOf(2, { adaptive: true, rounds: 24 }), Object.fromEntries(PRIMARY.map((metric) => [metric, 0.2])));
rows.push({ what: `adaptive, all five metrics shifted by 20 % (LCP seen ${percent(five.seen)})`, measured: `${percent(1 - five.rounds / 24)} fewer loads`, limit: 'at least 25 % fewer', holds: five.rounds <= 18 });

// Two stages, the world slower by 8 % in the second, the page unchanged: with and without a reference page.
const staged = designOf(2, { kind: 'before-after', primary: ['lcp'] });
const withReference: TrialDesign = { ...staged, arms: [...staged.arms, { id: 3, name: 'Reference', url: 'http://r.test/', baseline: false, reference: true }] };
const false_ = { corrected: 0, plain: 0 };
for (let i = 0; i < STAGED_TRIALS; i++) {
	const loads: TrialLoad[] = [];
	for (const stage of [0, 1])
		for (let round = 1; round <= 12; round++)
			for (const armId of [stage + 1, 3]) {
				const figures = { ...noFigures(), lcp: 2400 * (1 + 0.08 * stage + 0.06 * skewed(random)) };
				loads.push({ id: loads.length + 1, armId, conditionId: 'desktop', stage, round, warmup: false, status: 'ok', excluded: null, figures });
			}
	const called = (design: TrialDesign) => primaryOf(judge({ ...design, seed: i + 1 }, loads)).some(isCalled);
	if (called(withReference)) false_.corrected++;
	if (called(staged)) false_.plain++;
}
rows.push({ what: `before and after, a world 8 % slower, with a reference page (${STAGED_TRIALS} trials): false verdicts`, measured: percent(false_.corrected / STAGED_TRIALS, 1), limit: 'at most 5.5 % (two standard errors: 7.8)', holds: false_.corrected / STAGED_TRIALS <= 0.078 });
rows.push({ what: 'the same without it', measured: percent(false_.plain / STAGED_TRIALS, 1), limit: 'beyond 20 %, to be seen', holds: false_.plain / STAGED_TRIALS > 0.2 });

// The largest trial that is promised: 8 arms, 24 rounds, 2 conditions, 15 metrics.
const MANY = ['score', 'lcp', 'cls', 'tbt', 'wire', 'ttfb', 'fcp', 'start', 'si', 'vc', 'dcl', 'onload', 'full', 'decoded', 'requests'] as MetricId[];
const large = designOf(8, { rounds: 24, conditions: [...BUILT_IN_CONDITIONS] });
const loads = large.conditions.flatMap(({ id: conditionId }) =>
	Array.from({ length: 24 }, (_, i) => i + 1).flatMap((round) => roundOf(random, { ...large, primary: PRIMARY }, round, NULL).map((load) => ({ ...load, conditionId, figures: { ...load.figures, ...Object.fromEntries(MANY.map((metric) => [metric, load.figures[metric] ?? 1000 * (1 + 0.05 * random())])) } })))
);
const times = Array.from({ length: 12 }, () => {
	const from = performance.now();
	judge(large, loads);
	return performance.now() - from;
}).slice(2);
rows.push({ what: 'judging 8 arms x 24 rounds x 2 conditions x 15 metrics', measured: `${mean(times).toFixed(0)} ms`, limit: 'under 400 ms', holds: mean(times) < 400 });
printTable(`Verdicts: ${TRIALS} simulated trials a cell, five metrics, skewed noise of 6 % with outliers, 5 % drift a round`, rows);
