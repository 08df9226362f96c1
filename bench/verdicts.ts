/** How often the rule of judging is wrong, and how often it sees what is there. Simulated trials, seeded. */
import { BUILT_IN_CONDITIONS } from '../src/core/load/conditions';
import { noFigures, type MetricId } from '../src/core/metrics/catalogue';
import { normalFrom, seededRandom, type Random } from '../src/core/stats/random';
import { judge } from '../src/core/trial/judge';
import type { TrialDesign, TrialLoad } from '../src/core/trial/types';
import { percent, printTable } from './table';

const TRIALS = 2000;
const ROUNDS = 10;
const MIDDLES: Partial<Record<MetricId, number>> = { score: 70, lcp: 2400, cls: 0.08, tbt: 300, wire: 900_000 };
const PRIMARY = Object.keys(MIDDLES) as MetricId[];

const design: TrialDesign = {
	kind: 'side-by-side',
	arms: [1, 2].map((id) => ({ id, name: `Arm ${id}`, url: 'http://a.test/', baseline: id === 1, reference: false })),
	conditions: [BUILT_IN_CONDITIONS[1]!],
	rounds: ROUNDS,
	warmups: 0,
	seed: 1,
	primary: PRIMARY
};

/** Right-skewed, as load times are: a normal part and an exponential tail. */
function skewed(random: Random): number {
	return 0.6 * normalFrom(random) - 0.8 * (Math.log(1 - random()) + 1);
}

function simulate(random: Random, noise: (random: Random) => number, sizes: { noise: number; drift: number; shift: number }): TrialLoad[] {
	let id = 0;
	return Array.from({ length: ROUNDS }, (_, i) => i + 1).flatMap((round) => {
		const drift = sizes.drift * normalFrom(random);
		return [1, 2].map((armId): TrialLoad => {
			const figures = noFigures();
			for (const metric of PRIMARY)
				figures[metric] = MIDDLES[metric]! * (1 + drift + sizes.noise * noise(random) + (armId === 2 && metric === 'lcp' ? sizes.shift : 0));
			return { id: ++id, armId, conditionId: 'desktop', stage: 0, round, warmup: false, status: 'ok', excluded: null, figures };
		});
	});
}

const random = seededRandom(20_261_124);
let called = 0;
let covered = 0;
let all = 0;
for (let trial = 0; trial < TRIALS; trial++)
	for (const result of judge(design, simulate(random, skewed, { noise: 0.06, drift: 0.05, shift: 0 })).results) {
		if (!result.primary) continue;
		all++;
		if (result.verdict === 'better' || result.verdict === 'worse' || result.verdict === 'slight') called++;
		if (result.shift!.low! <= 0 && result.shift!.high! >= 0) covered++;
	}

let seen = 0;
let decided = 0;
for (let trial = 0; trial < TRIALS; trial++) {
	const lcp = judge(design, simulate(random, normalFrom, { noise: 0.06, drift: 0.05, shift: 0.1 })).results.find((one) => one.metric === 'lcp')!;
	if (lcp.shift!.low! > 0) seen++;
	if (lcp.verdict === 'worse' || lcp.verdict === 'slight') decided++;
}

printTable(`Verdicts: ${TRIALS} simulated trials of ${ROUNDS} rounds`, [
	{ what: 'A/A with skewed noise: primary metrics called different', measured: percent(called / all, 2), limit: 'at most 5.5 %', holds: called / all <= 0.055 },
	{ what: 'A/A: intervals that hold zero (exact level for ten pairs: 95.1 %)', measured: percent(covered / all, 2), limit: 'at least 94 %', holds: covered / all >= 0.94 },
	{ what: '10 % shift, 6 % noise per load, 5 % drift per round: interval excludes zero', measured: percent(seen / TRIALS), limit: 'at least 85 %', holds: seen / TRIALS >= 0.85 },
	{ what: 'the same: called slower, after Holm over five metrics', measured: percent(decided / TRIALS), limit: 'for the record', holds: true }
]);
