import { expect } from 'chai';
import fc from 'fast-check';
import { quantile } from 'd3-array';
import {
	binOf,
	binStart,
	binValue,
	histogramOf,
	mergeHistograms,
	quantileOf,
	shareBelow,
	weightOf
} from '$core/field/histogram';
import { readMetric } from '$core/field/reading';

describe('a histogram of visits', () => {
	const values = fc.array(fc.double({ min: 1, max: 60_000, noNaN: true }), { minLength: 1, maxLength: 400 });

	it('gives any quantile to 2 % of the exact one of the same visits', () => {
		fc.assert(
			fc.property(values, fc.integer({ min: 1, max: 99 }), (visits, percent) => {
				const sorted = [...visits].sort((a, b) => a - b);
				// The smallest value at or below which the share lies.
				const exact = sorted[Math.max(0, Math.ceil((percent / 100) * sorted.length - 1e-9) - 1)]!;
				const read = quantileOf('lcp', histogramOf('lcp', visits), percent / 100)!;
				expect(Math.abs(read / exact - 1)).to.be.at.most(0.02 + 1e-9);
			}),
			{ numRuns: 300, seed: 11 }
		);
	});

	it('of two groups is the sum of theirs', () => {
		fc.assert(
			fc.property(values, values, (a, b) => {
				const merged = mergeHistograms([histogramOf('inp', a), histogramOf('inp', b)]);
				expect(merged).to.deep.equal(new Map(histogramOf('inp', [...a, ...b])));
				expect(weightOf(merged)).to.equal(a.length + b.length);
			}),
			{ numRuns: 60, seed: 12 }
		);
	});

	it('holds each value in its bin, whose middle is within 2 % of it', () => {
		for (const value of [0.11, 1, 99.9, 100, 2500, 40_000]) {
			const bin = binOf('lcp', value);
			expect(binStart('lcp', bin)).to.be.at.most(value * (1 + 1e-12));
			expect(binStart('lcp', bin + 1)).to.be.above(value);
			expect(Math.abs(binValue('lcp', bin) / value - 1)).to.be.at.most(0.02 + 1e-9);
		}
		expect([binOf('cls', 0), binValue('cls', -1), binOf('cls', 0.1)].slice(0, 2)).to.deep.equal([-1, 0]);
	});

	it('tells the share at or below a value within the visits of one bin', () => {
		const visits = Array.from({ length: 10_000 }, (_, i) => 500 + i * 0.5);
		const below = shareBelow('lcp', histogramOf('lcp', visits), 2500);
		// 4,001 of 10,000; a bin of 4 % at 2,500 holds some 200 of them, and is parted.
		expect(below).to.be.closeTo(0.4, 0.002);
		expect(quantileOf('lcp', histogramOf('lcp', visits), 0.75)! / quantile(visits, 0.75)!).to.be.closeTo(1, 0.02);
	});

	it('of nobody has no quantile', () => {
		expect([quantileOf('lcp', new Map(), 0.75), shareBelow('lcp', new Map(), 1)]).to.deep.equal([null, 0]);
		expect(readMetric('lcp', new Map())).to.equal(null);
	});

	it('gives the three shares by the thresholds of web.dev (LCP 2.5 s and 4 s)', () => {
		const visits = [...Array(60).fill(1000), ...Array(30).fill(3000), ...Array(10).fill(9000)];
		const { shares, p75 } = readMetric('lcp', histogramOf('lcp', visits))!;
		expect(shares.map((share) => Number(share.toFixed(6)))).to.deep.equal([0.6, 0.3, 0.1]);
		expect(p75).to.be.closeTo(3000, 60);
	});
});
