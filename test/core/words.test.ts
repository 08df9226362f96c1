import { expect } from 'chai';
import { IntlMessageFormat } from 'intl-messageformat';
import { METRIC_IDS, metricOf } from '$core/metrics/catalogue';
import type { ShiftResult } from '$core/trial/types';
import { plainAnswer } from '$core/wording/plainAnswer';
import { en } from '$core/wording/messages/en';
import { es } from '$core/wording/messages/es';
import { parts } from '$core/wording/messages/parts';
import { wordMore, wordVerdict } from '$core/wording/shift';
import { ENGLISH, wordsIn } from '$core/wording/words';

type Element = { type: number; value?: string; options?: Record<string, { value: Element[] }> };
/** Names of the values that a message needs. */
const needs = (message: string): string[] => {
	const names = (elements: Element[]): string[] =>
		elements.flatMap((element) => [
			...(element.type >= 1 && element.type <= 6 && element.value ? [element.value] : []),
			...Object.values(element.options ?? {}).flatMap((option) => names(option.value))
		]);
	const { getAst } = new IntlMessageFormat(message, 'en', undefined, { ignoreTag: true });
	return [...new Set(names(getAst() as Element[]))].sort();
};

describe('the catalogue of messages', () => {
	it('reads every message, in both languages', () => {
		for (const message of [...Object.values(en), ...Object.values(es), ...Object.values(parts)])
			expect(() => needs(message), message).not.to.throw();
	});

	it('asks for the same values in Spanish as in English', () => {
		for (const [key, message] of Object.entries(es))
			expect(needs(message), key).to.deep.equal(needs(en[key as keyof typeof en]));
	});

	it('has a plain name for every metric, and words for better and worse', () => {
		for (const words of [ENGLISH, wordsIn('es')])
			for (const metric of METRIC_IDS) {
				expect(words.say(`metric.${metric}`)).not.to.equal('');
				for (const word of metricOf(metric).words)
					expect(words.say(`verdict.${word}` as 'verdict.faster')).to.match(/^\p{L}+( \p{L}+)*$/u);
			}
	});

	it('fills in what a page or an analyst called things as it stands, markup and all', () => {
		expect(ENGLISH.say('answer.plain.same', { arm: '<b>{x}</b>', baseline: "'quoted'" })).to.equal(
			"“<b>{x}</b>” and “'quoted'” show no difference that matters."
		);
	});

	it('follows the plural rules of the language (CLDR)', () => {
		expect([1, 2].map((n) => ENGLISH.say('regression.errors', { n }))).to.deep.equal([
			'1 new error in the console',
			'2 new errors in the console'
		]);
		const spanish = wordsIn('es');
		expect([1, 2].map((rounds) => wordMore({ roundsNeeded: rounds, n: 0 }, 'puntuación', spanish))).to.deep.equal([
			'Con 1 ronda en total probablemente se decidiría: puntuación.',
			'Con 2 rondas en total probablemente se decidiría: puntuación.'
		]);
	});
});

describe('the answer in Spanish', () => {
	const spanish = wordsIn('es');
	const result = (metric: string, verdict: ShiftResult['verdict'], more: Partial<ShiftResult> = {}): ShiftResult =>
		({
			condition: 'desktop',
			arm: 2,
			baseline: 1,
			metric,
			verdict,
			primary: true,
			reason: null,
			shift: null,
			...more
		}) as ShiftResult;
	const answer = (...results: ShiftResult[]) =>
		plainAnswer('', { results, names: { arm: 'B', baseline: 'A' }, words: spanish }).sentence;

	it('tells differences, what is open, and no difference that matters', () => {
		expect(answer(result('lcp', 'worse'), result('wire', 'worse'), result('tbt', 'undecided'))).to.equal(
			'«B» es más lenta en renderizado principal y más pesada que «A».'
		);
		expect(answer(result('lcp', 'same'))).to.equal('«B» y «A» no muestran ninguna diferencia que importe.');
		expect(answer(result('lcp', 'undecided'), result('cls', 'undecided'))).to.equal(
			'Aún no se puede decir si «B» y «A» difieren en renderizado principal y cambio de diseño.'
		);
	});

	it('says why there is no verdict', () => {
		const reason = { code: 'failures', failed: 5, loads: 9, arm: 'B' } as const;
		expect(answer(result('lcp', 'none', { reason }))).to.equal(
			'No hay veredicto sobre «B». Fallaron 5 de 9 cargas de «B».'
		);
	});

	it('words verdicts for tables', () => {
		const shift = { estimate: 30, low: 1, high: 60, relative: null };
		expect(wordVerdict({ metric: 'lcp', verdict: 'slight', shift }, spanish)).to.equal(
			'más lenta; no está decidido cuánto'
		);
	});
});
