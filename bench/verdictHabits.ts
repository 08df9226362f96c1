/** Cells of `bench/verdicts`: who stops when it looks good, worlds that drift, effects that look too large. */
import type { MetricId } from '$core/metrics/catalogue';
import { isFaint } from '$core/trial/judge/faint';
import type { TrialDesign } from '$core/trial/types';
import { runDrifting, type StageWorld } from './stageWorlds';
import { percent } from './table';
import { nothing, sees, share, trial, world, type Cell } from './verdictCells';
import { CALM, designOf, isCalled, runWatching, type World } from './verdictWorlds';

const onlyLcp = { primary: ['lcp' as MetricId] };
const adaptive = { adaptive: true };

const WATCHED: [name: string, design: TrialDesign, of: World][] = [
	['fixed 24, one metric', designOf(2, { ...onlyLcp, rounds: 24 }), CALM],
	['fixed 12, one metric', designOf(2, onlyLcp), CALM],
	['fixed 24, five metrics', designOf(2, { rounds: 24 }), CALM],
	['fixed 12, five metrics', designOf(2), CALM],
	['adaptive, five metrics', designOf(2, adaptive), CALM],
	['fixed 24, one metric, heavy tails', designOf(2, { ...onlyLcp, rounds: 24 }), world({ kind: 'heavy', noise: 0.12 })],
	['fixed 24, one metric, half of the figures alike', designOf(2, { ...onlyLcp, rounds: 24 }), world({ exact: 0.5 })],
	['fixed 24, one metric, LCP flips', designOf(2, { ...onlyLcp, rounds: 24 }), world({ flip: 0.5 })],
	['fixed 12, four variants', designOf(4), CALM]
];
export const watching: Cell[] = WATCHED.map(([name, design, of]) =>
	nothing(
		`stopped at the first round from 6 on that would call: ${name}`,
		(seed) => runWatching(design, of, seed),
		false
	)
);

const STAGES: StageWorld = {
	drift: 'proportion',
	size: 0.1,
	noise: 0.06,
	reference: 2500,
	shift: 0,
	rounds: 10,
	stops: false
};
const staged = (more: Partial<StageWorld>) => (seed: number) => runDrifting({ ...STAGES, ...more }, seed);
export const drifts: Cell[] = [
	...[800, 2500, 5000].flatMap((reference) =>
		(['proportion', 'addition', 'groups', 'memory'] as const).flatMap((drift) =>
			[0.05, 0.2].map((size) =>
				nothing(
					`stages, drift by ${drift} of ${size * 100} %, page 2.5 s, reference ${reference / 1000} s`,
					staged({ drift, size, reference }),
					false
				)
			)
		)
	),
	...[10, 20].map((rounds) =>
		nothing(
			`stages of ${rounds}, stopped at the first round from 4 on that would call`,
			staged({ rounds, size: 0.05, stops: true }),
			false
		)
	),
	...(['proportion', 'addition'] as const).map((drift) =>
		sees(`stages, page 10 % slower, drift by ${drift} of 10 %: seen`, staged({ drift, shift: 0.1 }), 0.45)
	),
	sees('stages, page 10 % slower, no drift: seen', staged({ size: 0, shift: 0.1 }), 0.5)
];

const TRUE_SHIFT = 0.1;
/** How many times too large called effects look; of those that are called faint, and of the others. */
export const curse = (isFaintOnes: boolean): Cell => ({
	name: `10 % at 12 % noise, 10 rounds: called effects whose size ${isFaintOnes ? 'is told as “probably smaller”' : 'is told'}`,
	run: trial(designOf(2, { rounds: 10 }), world({ kind: 'normal', noise: 0.12, shift: { lcp: TRUE_SHIFT } })),
	hit: ({ judgement }) =>
		judgement.results.some((result) => result.metric === 'lcp' && isCalled(result) && isFaint(result) === isFaintOnes),
	tallied: ({ judgement }) =>
		judgement.results
			.filter((result) => result.metric === 'lcp' && isCalled(result) && isFaint(result) === isFaintOnes)
			.reduce((sum, { shift }) => sum + shift!.relative! / TRUE_SHIFT, 0),
	limit: '',
	holds: () => true,
	show: (tally) =>
		`${percent(share(tally))} of trials, ${(tally.extra / Math.max(1, tally.hits)).toFixed(2)} times the truth`
});
