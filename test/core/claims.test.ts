/**
 * Sentences of answers parsed back: from judgements drawn at random, each claim that a sentence makes (which metrics,
 * in which direction, decided or open, of which size) must follow from the verdicts, in both languages.
 */
import { expect } from 'chai';
import fc from 'fast-check';
import { metricOf, type MetricId } from '$core/metrics/catalogue';
import { isFaint } from '$core/trial/judge/faint';
import type { ShiftResult } from '$core/trial/types';
import { plainAnswer } from '$core/wording/plainAnswer';
import { plainName } from '$core/wording/plainNames';
import { wordsIn, type Language, type Words } from '$core/wording/words';
import { PRIMARY, randomResults } from '../support/randomResults';

const NAMES = { baseline: 'Alpha', arm: 'Omega' };
const WORDS = ['faster', 'lighter', 'more stable', 'more responsive', 'better'] as const;
const OPPOSITES = ['slower', 'heavier', 'less stable', 'less responsive', 'worse'] as const;

interface Claim {
	direction: 'better' | 'worse';
	/** First word of the pair: its family of metrics. */
	family: string;
	/** Empty where the bare word claims the whole family. */
	metrics: MetricId[];
}

/** What is said to be how, in the order of the text. */
function claimsIn(text: string, words: Words): Claim[] {
	const spoken = WORDS.flatMap((word, i) => [
		{ text: words.say(`verdict.${word}`), direction: 'better' as const, family: word },
		{ text: words.say(`verdict.${OPPOSITES[i]!}`), direction: 'worse' as const, family: word }
	]).sort((a, b) => b.text.length - a.text.length);
	const form = new RegExp(spoken.map((item) => `(?<!\\p{L})${item.text}(?!\\p{L})`).join('|'), 'gu');
	const found = [...text.matchAll(form)];
	return found.map((match, i) => {
		const { direction, family } = spoken.find((item) => item.text === match[0])!;
		const rest = text.slice(match.index + match[0].length, found[i + 1]?.index ?? text.length);
		// What follows the word without "in" is the other side of the sentence.
		const isNamed = /^ (in|en) /.test(rest);
		return { direction, family, metrics: isNamed ? metricsIn(rest.split(/ than | que |; |\./)[0]!, words) : [] };
	});
}

const metricsIn = (text: string, words: Words): MetricId[] =>
	PRIMARY.filter((metric) => text.includes(plainName(metric, words)));

const gains = ({ metric, shift }: ShiftResult) => shift!.estimate > 0 === metricOf(metric).higherIsBetter;

/** The part of an answer in which variants are compared, without lead and without the reason for no verdict. */
function comparison(sentence: string, words: Words): string {
	const quoted = words.language === 'es' ? '«Omega» es ' : '“Omega” is ';
	return sentence.includes(quoted) ? sentence.slice(sentence.indexOf(quoted) + quoted.length) : '';
}

function expectToFollow(told: readonly ShiftResult[], language: Language): void {
	const words = wordsIn(language);
	const { sentence, detail } = plainAnswer('', { results: told, names: NAMES, words });
	const text = `${sentence} ${detail}`;
	const of = (metric: MetricId) => told.find((result) => result.metric === metric)!;
	const isSlight = told.every(({ verdict }) => verdict !== 'better' && verdict !== 'worse');
	const claims = claimsIn(comparison(sentence, words), words);
	for (const { direction, family, metrics } of claims) {
		const verdictOf = (result: ShiftResult) =>
			isSlight && result.verdict === 'slight' ? (gains(result) ? 'better' : 'worse') : result.verdict;
		for (const metric of metrics) expect(verdictOf(of(metric)), text).to.equal(direction);
		if (metrics.length) continue;
		// A bare word claims every metric of its family.
		const own = told.filter(({ metric }) => metricOf(metric).words[0] === family);
		expect(
			own.some(({ verdict }) => verdict === direction),
			text
		).to.equal(true);
		for (const { verdict } of own) expect([direction, 'same'], text).to.include(verdict);
	}
	// Nothing decided is left out: but the score, where more is said.
	for (const result of told) {
		const { metric, verdict } = result;
		if (metric === 'score' || !['better', 'worse', 'slight'].includes(verdict)) continue;
		const direction = gains(result) ? 'better' : 'worse';
		const where = verdict === 'slight' && !isSlight ? claimsIn(detail, words) : claims;
		const isTold = where.some(
			(claim) =>
				claim.direction === direction &&
				claim.family === metricOf(metric).words[0] &&
				(!claim.metrics.length || claim.metrics.includes(metric))
		);
		expect(isTold, `${metric}: ${text}`).to.equal(true);
	}
	expectSizes(told, detail, words);
	const open = told.filter(({ verdict }) => verdict === 'undecided');
	for (const { metric } of open) expect(text).to.include(plainName(metric, words).slice(1));
	// Where the interval leaves out zero it is not said to be undecided whether there is a difference.
	const undecided = /(Not decided whether|No está decidido si)[^.]*\./.exec(sentence)?.[0] ?? '';
	for (const metric of metricsIn(undecided, words)) {
		const { low, high } = of(metric).shift!;
		expect(low === null || (low <= 0 && high! >= 0), text).to.equal(true);
	}
}

/** A size is said of what is decided, and as a range where it is probably too large. */
function expectSizes(told: readonly ShiftResult[], detail: string, words: Words): void {
	const form =
		words.language === 'es' ? /^La mayor diferencia: ([^,]+), (de .* a )?/ : /^Largest difference: ([^,]+), (.* to )?/;
	const largest = form.exec(detail.split(/\. |\.$/)[0]!);
	if (!largest) return;
	const result = told.find(({ metric }) => plainName(metric, words) === largest[1])!;
	expect(['better', 'worse'], detail).to.include(result.verdict);
	expect(largest[2] !== undefined, detail).to.equal(isFaint(result));
	expect(/\b(more|más)(\.|$)/.test(detail.split(/\. /)[0]!), detail).to.equal(result.shift!.estimate > 0);
}

describe('sentences parsed back', function () {
	this.timeout(120_000);

	for (const language of ['en', 'es'] as const)
		it(`claim what their verdicts support, and all of it (${language})`, () => {
			fc.assert(
				fc.property(randomResults, (told) => expectToFollow(told, language)),
				{ numRuns: 10_000, seed: 30 }
			);
		});
});
