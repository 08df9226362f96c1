import { expect } from 'chai';
import { formatBytes, formatDifference, formatDuration, formatMoment, formatShare, formatValue, formatWait } from '../../src/core/wording/format';
import { wordAnswer, wordDifference, wordShift, wordVerdict } from '../../src/core/wording/shift';
import type { ShiftResult } from '../../src/core/trial/types';

/** Non-breaking spaces and the minus sign, as readers see them. */
const plain = (text: string) => text.replace(/\u00a0/g, ' ');

describe('figures', () => {
	it('times: whole ms below a second, seconds with two decimals above', () => {
		expect([0, 999.4, 999.6, 1000, 12_345].map((ms) => plain(formatDuration(ms)))).to.deep.equal(['0 ms', '999 ms', '1.00 s', '1.00 s', '12.35 s']);
		expect(plain(formatDuration(-420))).to.equal('−420 ms');
	});

	it('sizes: kB and MB of 1000', () => {
		expect([950, 1000, 12_345, 123_456, 999_600, 1_234_567].map((bytes) => plain(formatBytes(bytes)))).to.deep.equal([
			'950 B',
			'1.0 kB',
			'12.3 kB',
			'123 kB',
			'1.00 MB',
			'1.23 MB'
		]);
	});

	it('shares and differences carry their sign; zero has none', () => {
		expect([0.18, -0.264, 0, 0.004, 1.2].map((share) => plain(formatShare(share)))).to.deep.equal(['+18 %', '−26 %', '0 %', '+0.4 %', '+120 %']);
		expect(plain(formatDifference('lcp', 420))).to.equal('+420 ms');
		expect(plain(formatDifference('lcp', -0.2))).to.equal('0 ms');
		expect(plain(formatDifference('score', -3.24))).to.equal('−3.2 points');
		expect(formatValue('lcp', null)).to.equal('–');
		expect(formatValue('requests', 1234)).to.equal('1,234');
	});

	it('waiting and moments', () => {
		expect([1000, 61_000, 600_000, 7_200_000].map(formatWait)).to.deep.equal(['less than a minute', 'about a minute', 'about 10 minutes', 'about 2.0 hours']);
		expect(formatMoment('2026-11-24T14:05:00.000Z', 'UTC')).to.equal('24 November 2026, 14:05');
	});
});

describe('shifts', () => {
	const relative = { estimate: -0.26, low: -0.31, high: -0.2 };
	const result = (extra: Partial<ShiftResult>): ShiftResult => ({
		condition: 'phone',
		metric: 'lcp',
		baseline: 1,
		arm: 2,
		n: 10,
		baselineMedian: 2350,
		armMedian: 1740,
		shift: { estimate: -610, low: -730, high: -470, relative },
		rawShift: null,
		margin: 118,
		p: 0.002,
		adjustedP: 0.01,
		primary: true,
		verdict: 'better',
		reason: null,
		roundsNeeded: null,
		...extra
	});
	const names = { baseline: 'As it is', arm: 'With Larder' };

	it('words a shift as a difference with its share and interval', () => {
		expect(plain(wordShift('lcp', result({}).shift!))).to.equal('610 ms less (−26 %, between −31 % and −20 %)');
		expect(plain(wordShift('lcp', { estimate: -1610, low: null, high: null, relative: null }))).to.equal('1.61 s less (too few rounds for an interval)');
		expect(plain(wordShift('cls', { estimate: 0.0512, low: 0.03, high: 0.07, relative: null }))).to.equal('0.051 more (between +0.030 and +0.070)');
		expect(wordDifference('wire', 0)).to.equal('unchanged');
	});

	it('44 to 80 is 36 points or 82 % more, never 180 % (common practice)', () => {
		expect(plain(wordDifference('score', 80 - 44))).to.equal('36.0 points more');
		expect(plain(formatShare(80 / 44 - 1))).to.equal('+82 %');
	});

	it('words each verdict for a client', () => {
		expect(plain(wordAnswer(result({}), names))).to.equal(
			'Largest Contentful Paint: “With Larder” is faster than “As it is”: 1.74 s against 2.35 s, 610 ms less (−26 %, between −31 % and −20 %).'
		);
		expect(plain(wordAnswer(result({ verdict: 'same', shift: { estimate: 5, low: -20, high: 30, relative: null } }), names))).to.match(/no practical difference: .* within the margin of 118 ms\.$/);
		expect(wordAnswer(result({ verdict: 'undecided', roundsNeeded: 24 }), names)).to.match(/undecided after 10 rounds: .* About 24 rounds would probably decide it\.$/);
		expect(wordAnswer(result({ verdict: 'slight' }), names)).to.match(/faster, perhaps too little to matter/);
		expect(wordAnswer(result({ verdict: 'none', reason: '3 of 10 loads of “X” failed.' }), names)).to.equal('Largest Contentful Paint: no verdict. 3 of 10 loads of “X” failed.');
	});

	it('a load time that did not move is not told as a win, whatever the score did (common practice)', () => {
		const still = result({ metric: 'onload', verdict: 'same', baselineMedian: 3400, armMedian: 3400, shift: { estimate: 0, low: -60, high: 70, relative: null } });
		expect(plain(wordAnswer(still, names))).to.match(/^Load event: no practical difference: 3\.40 s against 3\.40 s, unchanged/);
	});

	it('has words for weight, calm and points', () => {
		expect(wordVerdict({ metric: 'wire', verdict: 'worse', shift: null })).to.equal('heavier');
		expect(wordVerdict({ metric: 'cls', verdict: 'better', shift: null })).to.equal('steadier');
		expect(wordVerdict({ metric: 'score', verdict: 'slight', shift: { estimate: 4, low: 1, high: 7, relative: null } })).to.equal('better, perhaps too little to matter');
	});
});
