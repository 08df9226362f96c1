/** Every sentence that compares is made from verdicts: drawn at random, none of them may claim more. */
import { expect } from 'chai';
import fc from 'fast-check';
import { METRICS, metricOf } from '$core/metrics/catalogue';
import type { ShiftResult, Verdict } from '$core/trial/types';
import { plainAnswer, plainNoise } from '$core/wording/plainAnswer';
import { askedDirection } from '$core/wording/question';
import { plainName } from '$core/wording/plainNames';
import { wordAnswer, wordDifference, wordShift, wordVerdict } from '$core/wording/shift';
import { worthOf } from '$core/wording/worth';
import { randomResult, randomResults as results } from '../support/randomResults';

const arm = (id: number, name: string) => ({
	id,
	name,
	url: 'http://a.test/',
	baseline: id === 1,
	reference: false,
	page: 'Home',
	setup: null
});

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

const gains = ({ metric, shift }: ShiftResult) => shift!.estimate > 0 === metricOf(metric).higherIsBetter;

/** The words that verdicts allow in a sentence. */
function allowedWords(told: readonly ShiftResult[]): Set<string> {
	return new Set(
		told.flatMap((result) =>
			['better', 'worse', 'slight'].includes(result.verdict)
				? [metricOf(result.metric).words[gains(result) ? 0 : 1]]
				: []
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
				const differs = told.filter((item) => ['better', 'worse', 'slight'].includes(item.verdict));
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
				const { sentence, detail, tone } = plainAnswer(question, {
					results: told,
					names: { baseline: 'Alpha', arm: 'Omega' }
				});
				const text = `${sentence} ${detail}`.trim();
				expect(text).not.to.match(FLAWS);
				const asked = askedDirection(question);
				const all = told.filter(({ metric }) => asked?.metrics.includes(metric));
				// A score sums up more than is asked: it answers where nothing else does.
				const relevant = all.some(({ metric }) => metric !== 'score')
					? all.filter(({ metric }) => metric !== 'score')
					: all;
				const has = (verdict: Verdict) => relevant.some((item) => item.verdict === verdict);
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
					const unit = told.map((item) =>
						item.scale === 'share' ? { ...item, verdict: 'undecided' as const, scale: 'unit' as const } : item
					);
					const { words, points, lcpMs } = worthOf(unit, arm(1, 'Alpha') as never, priced(cost, hours) as never, {
						currency: 'EUR'
					});
					expect(words).not.to.match(FLAWS);
					const of = (metric: string) => unit.find((item) => item.metric === metric)!;
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
							verdicts.every((item) => item === 'same' || item === 'none'),
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
			fc.property(fc.constantFrom(...METRICS.map((metric) => metric.id)).chain(randomResult), (result) => {
				const line = wordAnswer(result, { baseline: 'Alpha', arm: 'Omega' });
				expect(line).not.to.match(FLAWS);
				const label = wordVerdict(result);
				for (const word of CHANGE) {
					if (!hasWord(line, word)) continue;
					expect(['better', 'worse', 'slight'], line).to.include(result.verdict);
					expect(label, line).to.include(word);
				}
				if (result.verdict === 'slight') expect(line).to.include('by how much is open');
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
