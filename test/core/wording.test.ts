import { expect } from 'chai';
import fc from 'fast-check';
import {
	counted,
	formatBytes,
	formatDifference,
	formatDuration,
	formatMoment,
	formatValue,
	formatWait
} from '$core/wording/format';
import { wordAnswer, wordDifference, wordShift, wordVerdict, wordInterval } from '$core/wording/shift';
import type { MetricId } from '$core/metrics/catalogue';
import type { ShiftResult } from '$core/trial/types';

/** Non-breaking spaces and the minus sign, as readers see them. */
const plain = (text: string) => text.replace(/\u00a0/g, ' ');

describe('figures', () => {
	it('counts: one is told as one', () => {
		expect([0, 1, 2].map((n) => counted(n, 'round'))).to.deep.equal(['0 rounds', '1 round', '2 rounds']);
		expect(counted(1, 'load waits', 'loads wait')).to.equal('1 load waits');
	});

	it('times: whole ms below a second, seconds with two decimals above', () => {
		expect([0, 999.4, 999.6, 1000, 12_345].map((ms) => plain(formatDuration(ms)))).to.deep.equal([
			'0 ms',
			'999 ms',
			'1.00 s',
			'1.00 s',
			'12.35 s'
		]);
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

	it('differences carry their sign; zero has none', () => {
		expect(plain(formatDifference('lcp', 420))).to.equal('+420 ms');
		expect(plain(formatDifference('lcp', -0.2))).to.equal('0 ms');
		expect(plain(formatDifference('score', -3.24))).to.equal('−3.2 points');
		expect(formatValue('lcp', null)).to.equal('–');
		expect(formatValue('requests', 1234)).to.equal('1,234');
	});

	// Reference: Intl.NumberFormat (ECMA-402), which a first screen cannot wait for.
	it('as Intl formats them', () => {
		const reference = new Intl.NumberFormat('en-GB', { minimumFractionDigits: 3, maximumFractionDigits: 3 });
		fc.assert(
			fc.property(fc.double({ min: 0, max: 1e9, noNaN: true }), (value) => {
				expect(formatValue('cls', value)).to.equal(reference.format(value));
			})
		);
	});

	it('waiting and moments', () => {
		expect([1000, 61_000, 600_000, 7_200_000].map(formatWait)).to.deep.equal([
			'less than a minute',
			'about a minute',
			'about 10 minutes',
			'about 2.0 hours'
		]);
		expect(formatMoment(new Date(2026, 10, 24, 14, 5).toISOString())).to.equal('24 November 2026, 14:05');
	});
});

describe('shifts', () => {
	const result = (extra: Partial<ShiftResult>): ShiftResult => ({
		condition: 'phone',
		metric: 'lcp',
		baseline: 1,
		arm: 2,
		n: 10,
		baselineMedian: 2350,
		armMedian: 1740,
		shift: { estimate: -610, low: -730, high: -470, relative: -610 / 2350 },
		rawShift: null,
		referenceCorrelation: null,
		scale: 'unit',
		margin: 118,
		p: 0.002,
		adjustedP: 0.01,
		primary: true,
		verdict: 'better',
		level: 0.95,
		decidedAt: 10,
		reason: null,
		roundsNeeded: null,
		hope: null,
		target: null,
		...extra
	});
	const shiftWords = (extra: Partial<ShiftResult> = {}) =>
		plain(wordShift({ ...result(extra), shift: result(extra).shift! }));
	const names = { baseline: 'As it is', arm: 'With Larder' };

	it('words a shift with the interval that was judged, in its unit, and a per cent beside the estimate alone', () => {
		expect(shiftWords()).to.equal('610 ms less (between 730 ms less and 470 ms less), 26 % of 2.35 s');
		expect(shiftWords({ shift: { estimate: -1610, low: null, high: null, relative: null } })).to.equal(
			'1.61 s less (not enough rounds for an interval)'
		);
		expect(
			shiftWords({
				metric: 'cls',
				baselineMedian: 0.02,
				shift: { estimate: 0.0512, low: -0.03, high: 0.07, relative: null }
			})
		).to.equal('between 0.030 less and 0.070 more (0.051 more measured, probably smaller)');
		expect(
			shiftWords({
				metric: 'wire',
				baselineMedian: 100_000,
				shift: { estimate: 1000, low: 1000, high: 1000, relative: 0.01 }
			})
		).to.equal('1.0 kB more (identical in every round), 1 % of 100 kB');
		expect(shiftWords({ scale: 'share', shift: { estimate: 0.15, low: 0.1, high: 0.2, relative: null } })).to.equal(
			'15.0 % more (between 10.0 % more and 20.0 % more) of each page’s own figure'
		);
		expect(wordDifference('wire', 0)).to.equal('unchanged');
		// Ends that round to the same are not the same: values are compared.
		const close = (metric: MetricId, low: number, high: number) =>
			plain(wordInterval({ metric, scale: 'unit', shift: { low, high } }));
		expect(close('cls', -0.0003, 0.0004)).to.equal('between 0.0003 less and 0.0004 more');
		expect(close('lcp', 0.8, 1.4)).to.equal('between 0.8 ms more and 1.4 ms more');
		expect(close('lcp', 12, 12)).to.equal('identical in every round');
	});

	it('the base of a share is the figure before: 40 to 70 is 30 points or 75 %, never 175 %; 350 ms that became 140 ms is 60 % less, a factor of 2.5', () => {
		expect(
			shiftWords({
				metric: 'score',
				baselineMedian: 40,
				armMedian: 70,
				shift: { estimate: 30, low: 25, high: 34, relative: 30 / 40 }
			})
		).to.equal('30.0 points more (between 25.0 points more and 34.0 points more), 75 % of 40');
		expect(
			shiftWords({
				metric: 'inp',
				baselineMedian: 350,
				armMedian: 140,
				shift: { estimate: -210, low: -240, high: -180, relative: -210 / 350 }
			})
		).to.match(/^210 ms less .*, 60 % of 350 ms$/);
		expect((350 / 140).toFixed(1)).to.equal('2.5');
	});

	it('words each verdict, and of what is undecided only that it is', () => {
		expect(plain(wordAnswer(result({ target: { value: 2500, standing: 'both-met' } }), names))).to.equal(
			'Largest Contentful Paint: “With Larder” is faster than “As it is”: 1.74 s against 2.35 s, 610 ms less (between 730 ms less and 470 ms less), 26 % of 2.35 s. Both meet the target.'
		);
		expect(
			plain(wordAnswer(result({ verdict: 'same', shift: { estimate: 5, low: -20, high: 30, relative: null } }), names))
		).to.match(/no practical difference: .* within the margin of 118 ms\.$/);
		const open = plain(
			wordAnswer(
				result({
					verdict: 'undecided',
					roundsNeeded: 24,
					shift: { estimate: -72, low: -300, high: 90, relative: -0.03 }
				}),
				names
			)
		);
		expect(open).to.equal(
			'Largest Contentful Paint: undecided after 10 rounds: between 300 ms less and 90 ms more. About 24 rounds in all would probably decide largest paint.'
		);
		expect(wordAnswer(result({ verdict: 'undecided', roundsNeeded: 201 }), names)).to.match(
			/More than 200 rounds .* wider margin helps more\.$/
		);
		expect(wordAnswer(result({ verdict: 'slight' }), names)).to.match(/is faster than “[^”]+”; by how much is open: /);
		expect(
			wordAnswer(result({ verdict: 'none', reason: { code: 'failures', failed: 3, loads: 10, arm: 'X' } }), names)
		).to.equal('Largest Contentful Paint: no verdict. 3 of 10 loads of “X” failed.');
	});

	it('3.4 s before and 3.4 s after is no change, whatever the score did (common practice)', () => {
		const still = result({
			metric: 'onload',
			verdict: 'same',
			baselineMedian: 3400,
			armMedian: 3400,
			shift: { estimate: 0, low: -60, high: 70, relative: 0 }
		});
		expect(plain(wordAnswer(still, names))).to.match(
			/^Load event: no practical difference: 3\.40 s against 3\.40 s, unchanged/
		);
	});

	it('has words for weight, calm and points', () => {
		expect(wordVerdict({ metric: 'wire', verdict: 'worse', shift: null })).to.equal('heavier');
		expect(wordVerdict({ metric: 'cls', verdict: 'better', shift: null })).to.equal('more stable');
		expect(
			wordVerdict({ metric: 'score', verdict: 'slight', shift: { estimate: 4, low: 1, high: 7, relative: null } })
		).to.equal('better; by how much is open');
	});
});
