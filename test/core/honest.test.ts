/** Every sentence that compares is made from verdicts: drawn at random, none of them may claim more. */
import { expect } from 'chai';
import fc from 'fast-check';
import { METRICS, metricOf, type MetricId } from '$core/metrics/catalogue';
import type { Interval, ShiftResult, Verdict } from '$core/trial/types';
import { decide } from '$core/trial/verdict';
import { plainAnswer, plainNoise } from '$core/wording/plainAnswer';
import { askedDirection } from '$core/wording/question';
import { plainName } from '$core/wording/plainNames';
import { wordAnswer, wordDifference, wordShift, wordVerdict } from '$core/wording/shift';
import { worthOf } from '$core/wording/worth';

const PRIMARY: MetricId[] = ['score', 'lcp', 'cls', 'tbt', 'wire', 'inp'];
const arm = (id: number, name: string) => ({
	id,
	name,
	url: 'http://a.test/',
	baseline: id === 1,
	reference: false,
	page: 'Home',
	setup: null
});

/** A result whose verdict follows from its figures, as judging makes it. */
const resultOf = (metric: MetricId): fc.Arbitrary<ShiftResult> =>
	fc
		.record({
			centre: fc.double({ min: -8, max: 8, noNaN: true }),
			half: fc.double({ min: 0, max: 6, noNaN: true }),
			called: fc.boolean(),
			measured: fc.integer({ min: 0, max: 9 }),
			median: fc.double({ min: 0, max: 40, noNaN: true }),
			rounds: fc.integer({ min: 1, max: 60 }),
			needed: fc.integer({ min: 6, max: 201 }),
			scale: fc.constantFrom('unit' as const, 'unit' as const, 'share' as const),
			off: fc.double({ min: -0.9, max: 0.9, noNaN: true })
		})
		.map((drawn): ShiftResult => {
			const size = drawn.scale === 'share' ? 0.02 : metricOf(metric).margin.absolute;
			const margin = size;
			const shift: Interval | null =
				drawn.measured === 0
					? null
					: drawn.measured === 1
						? { estimate: drawn.centre * size, low: null, high: null }
						: {
								estimate: (drawn.centre + drawn.off * drawn.half) * size,
								low: (drawn.centre - drawn.half) * size,
								high: (drawn.centre + drawn.half) * size
							};
			const verdict: Verdict = shift ? decide({ metric, shift, margin, called: drawn.called }) : 'none';
			const median = drawn.median * size;
			return {
				condition: 'phone',
				metric,
				baseline: 1,
				arm: 2,
				n: drawn.rounds,
				baselineMedian: median,
				armMedian: median + (shift?.estimate ?? 0),
				shift: shift && { ...shift, relative: median > 0 && drawn.scale === 'unit' ? shift.estimate / median : null },
				rawShift: null,
				referenceCorrelation: null,
				scale: drawn.scale,
				margin,
				p: 0.5,
				adjustedP: 0.5,
				primary: true,
				verdict,
				level: 0.95,
				decidedAt: null,
				reason: shift ? null : { code: 'failures', failed: 5, loads: 9, arm: 'Omega' },
				roundsNeeded: verdict === 'undecided' ? drawn.needed : null,
				hope: null,
				target: null
			};
		});
const results = fc.tuple(...PRIMARY.map(resultOf));
const FLAWS = /undefined|NaN|Infinity|null|\[object|\b1 (rounds|points|hours|requests|loads)\b|\s{2,}|\.\.|,\s*\./;
const CHANGE = [
	'faster',
	'slower',
	'better',
	'worse',
	'lighter',
	'heavier',
	'more stable',
	'less stable',
	'more responsive',
	'less responsive'
];

/** The words that verdicts allow in a sentence. */
function allowedWords(told: readonly ShiftResult[]): Set<string> {
	return new Set(
		told.flatMap((one) =>
			['better', 'worse'].includes(one.verdict) ? [metricOf(one.metric).words[one.verdict === 'better' ? 0 : 1]] : []
		)
	);
}
const hasWord = (text: string, word: string) => new RegExp(`\\b${word}\\b`).test(text);

describe('sentences', function () {
	this.timeout(60_000);

	it('of two runs of one page tell a difference as the lab’s own, and never one as none', () => {
		fc.assert(
			fc.property(results, (told) => {
				const { sentence, detail } = plainNoise(told);
				const text = `${sentence} ${detail}`;
				expect(text).not.to.match(FLAWS);
				const differs = told.filter((one) => ['better', 'worse', 'slight'].includes(one.verdict));
				expect(/came out different/.test(text), text).to.equal(differs.length > 0);
			}),
			{ numRuns: 1000, seed: 11 }
		);
	});

	it('for the client answer yes and no by verdicts alone, and give no figure but that of a decided shift', () => {
		const questions = fc.constantFrom(
			'Is it slower?',
			'Is it faster?',
			'Is it heavier?',
			'Does it help?',
			'Which is best?'
		);
		fc.assert(
			fc.property(results, questions, (told, question) => {
				const { sentence, detail, tone } = plainAnswer(question, told, { baseline: 'Alpha', arm: 'Omega' });
				const text = `${sentence} ${detail}`.trim();
				expect(text).not.to.match(FLAWS);
				const asked = askedDirection(question);
				const relevant = told.filter(({ metric }) => asked?.metrics.includes(metric));
				const has = (verdict: Verdict) => relevant.some((one) => one.verdict === verdict);
				if (/^Yes/.test(text)) expect(has(asked!.direction), text).to.equal(true);
				if (/^(No|Hardly)\./.test(text))
					expect(has(asked!.direction) || has('slight') || has('undecided'), text).to.equal(false);
				const allowed = allowedWords(told);
				for (const word of CHANGE) if (hasWord(sentence, word)) expect(allowed.has(word), text).to.equal(true);
				if (tone === 'same')
					expect(told.every(({ verdict }) => verdict === 'same' || verdict === 'none')).to.equal(true);
				const largest = /^Largest difference: ([^,]+), .+? (more|less)\./.exec(detail);
				if (largest) {
					const claimed = told.find(({ metric }) => plainName(metric) === largest[1])!;
					expect(['better', 'worse'], text).to.include(claimed.verdict);
					expect(claimed.shift!.estimate > 0, text).to.equal(largest[2] === 'more');
				}
				for (const { metric, verdict } of told)
					if (verdict === 'undecided' && allowed.size) {
						expect(detail, text).to.include(plainName(metric).slice(1));
						expect(sentence, text).not.to.include(plainName(metric));
					}
			}),
			{ numRuns: 3000, seed: 14 }
		);
	});

	it('about the price claim gains and losses that verdicts support, and hold no figure of what is undecided', () => {
		const priced = (cost: number | null, hours: number | null) => ({
			...arm(2, 'Omega'),
			setup: {
				components:
					cost === null
						? []
						: [
								{
									kind: 'plugin' as const,
									name: 'Larder',
									version: '',
									tier: 'paid' as const,
									monthlyCost: cost,
									settings: '',
									jobs: []
								}
							],
				features: {},
				effortHours: hours
			}
		});
		fc.assert(
			fc.property(
				results,
				fc.option(fc.integer({ min: 0, max: 40 })),
				fc.option(fc.integer({ min: 0, max: 30 })),
				(told, cost, hours) => {
					const unit = told.map((one) =>
						one.scale === 'share' ? { ...one, verdict: 'undecided' as const, scale: 'unit' as const } : one
					);
					const { words, points, lcpMs } = worthOf(unit, arm(1, 'Alpha') as never, priced(cost, hours) as never);
					expect(words).not.to.match(FLAWS);
					const of = (metric: string) => unit.find((one) => one.metric === metric)!;
					for (const [metric, figure] of [
						['score', points],
						['lcp', lcpMs]
					] as const) {
						const clear = ['better', 'worse'].includes(of(metric).verdict);
						expect(figure === null, words).to.equal(!clear);
					}
					const verdicts = ['score', 'lcp'].map((metric) => of(metric).verdict);
					expect(/\bgains\b/.test(words), words).to.equal(verdicts.includes('better'));
					expect(/\bloses\b/.test(words), words).to.equal(verdicts.includes('worse'));
					if (/No difference that matters/.test(words))
						expect(
							verdicts.every((one) => one === 'same' || one === 'none'),
							words
						).to.equal(true);
					if (verdicts.includes('undecided')) expect(words).to.match(/not decided/);
				}
			),
			{ numRuns: 3000, seed: 12 }
		);
	});

	it('of the analyst’s lines carry the judged interval and the verdict’s word, with units, and no claim on what is open', () => {
		fc.assert(
			fc.property(fc.constantFrom(...METRICS.map((metric) => metric.id)).chain(resultOf), (result) => {
				const line = wordAnswer(result, { baseline: 'Alpha', arm: 'Omega' });
				expect(line).not.to.match(FLAWS);
				const label = wordVerdict(result);
				for (const word of CHANGE) {
					if (!hasWord(line, word)) continue;
					expect(['better', 'worse', 'slight'], line).to.include(result.verdict);
					expect(label, line).to.include(word);
				}
				if (result.verdict === 'slight') expect(line).to.include('perhaps too little to matter');
				if (result.verdict === 'undecided') {
					expect(line).to.include('undecided');
					expect(line).not.to.include(wordDifference(result.metric, result.shift!.estimate, result.scale) + ' (');
				}
				if (!result.shift) return;
				const shift = wordShift({ ...result, shift: result.shift });
				expect(shift).not.to.match(FLAWS);
				// One scale: a per cent at most once, as a share of the baseline, or everywhere in a pooled answer.
				if (result.scale === 'unit') expect((shift.match(/%/g) ?? []).length).to.be.at.most(1);
			}),
			{ numRuns: 4000, seed: 13 }
		);
	});
});
