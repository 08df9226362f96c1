import { expect } from 'chai';
import type { ShiftResult } from '$core/trial/types';
import { worthOf } from '$core/wording/worth';
import { arm, component, setup } from '../support/arms';

describe('worth and held back', () => {
	const result = (metric: 'score' | 'lcp' | 'tbt', verdict: string, estimate: number) =>
		({
			metric,
			arm: 2,
			verdict,
			primary: true,
			shift: { estimate, low: estimate, high: estimate, relative: null }
		}) as ShiftResult;
	const priced = arm(2, 'B', setup([component('Larder', { monthlyCost: 12 })], {}, 20));
	const EURO = { currency: 'EUR' };
	const words = (...results: ShiftResult[]) => worthOf(results, arm(1, 'A'), priced, EURO).words;

	it('sets the gain that verdicts support against the price', () => {
		expect(
			worthOf([result('score', 'better', 12), result('lcp', 'better', -600)], arm(1, 'A'), priced, EURO)
		).to.include({
			points: 12,
			lcpMs: 600,
			monthlyCost: 12,
			hours: 20,
			words: 'It gains 12 points of score and 600\u00a0ms of largest paint for €12 more a month and 20 hours of work.'
		});
		// Common practice: from 1.3 s to 1.1 s is rarely worth 20 hours.
		expect(words(result('score', 'same', 1), result('lcp', 'same', -60))).to.equal(
			'No difference that matters: not worth more hours, nor €12 a month.'
		);
		expect(words(result('score', 'worse', -9))).to.match(
			/^It loses 9 points of score, on top of €12 more a month.*not worth it/
		);
		expect(worthOf([], arm(1, 'A'), arm(2, 'B'), EURO).words).to.equal(
			'Neither score nor largest paint has a verdict.'
		);
	});

	it('calls no gain what comes back later', () => {
		const gains = [result('score', 'better', 6), result('lcp', 'same', 0)];
		expect(worthOf(gains, arm(1, 'A'), priced, { putOff: ['score'], currency: 'EUR' })).to.deep.include({
			points: null,
			words:
				'What it saves in score comes back later. No difference that matters: not worth more hours, nor €12 a month.'
		});
		expect(
			worthOf([result('score', 'better', 6)], arm(1, 'A'), priced, { putOff: ['score'], currency: 'EUR' }).words
		).to.equal('What it saves in score comes back later.');
	});

	it('puts no figure of what is undecided into a claim', () => {
		const mixed = worthOf([result('score', 'worse', -18), result('lcp', 'undecided', -72)], arm(1, 'A'), priced, EURO);
		expect(mixed).to.include({ points: -18, lcpMs: null });
		expect(mixed.words).to.equal(
			'It loses 18 points of score, on top of €12 more a month and 20 hours of work: not worth it for speed. Largest paint is not decided.'
		);
		// "Nothing has been shown" would be untrue beside a blocking time that is worse.
		expect(words(result('score', 'undecided', 1), result('lcp', 'undecided', 9), result('tbt', 'worse', 300))).to.equal(
			'Score and largest paint are not decided; it is worse in blocking time; the price is €12 more a month and 20 hours of work.'
		);
		expect(words(result('score', 'same', 0), result('lcp', 'same', 9), result('tbt', 'worse', 300))).to.match(
			/^No difference that matters in score and largest paint; it is worse in blocking time/
		);
		expect(words(result('score', 'better', 9), result('tbt', 'worse', 300))).to.match(
			/^It gains 9 points of score for .*, but it is worse in blocking time\.$/
		);
		expect(worthOf([result('score', 'worse', -9)], arm(1, 'A'), priced, { currency: 'GBP' }).words).to.include(
			'on top of £12 more a month'
		);
		expect(words(result('score', 'slight', 4))).to.equal(
			'It is better in score; by how much is open, and the price is €12 more a month and 20 hours of work.'
		);
	});
});
