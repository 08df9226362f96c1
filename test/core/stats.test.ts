import { expect } from 'chai';
import wilcoxon from '@stdlib/stats-wilcoxon';
import { doubledMidranks } from '$core/stats/estimate';
import { holm } from '../support/reference/holm';
import { normalCdf, normalQuantile } from '$core/stats/normal';
import { normalFrom, seededRandom, shuffled } from '$core/stats/random';
import { hodgesLehmann, rankSumCritical, rankSumP, twoSampleShift } from '$core/stats/rankSum';
import { pairedShift, signedRankCritical, signedRankP, walshAverages } from '$core/stats/signedRank';
import { median, outliers, quantileSorted, scaledMad } from '$core/stats/summary';

describe('signed rank', () => {
	it('has the critical values of the standard tables (two-sided 5 %, n = 6 to 20)', () => {
		const table = [0, 2, 3, 5, 8, 10, 13, 17, 21, 25, 29, 34, 40, 46, 52];
		expect(table.map((_, i) => signedRankCritical(i + 6, 0.05))).to.deep.equal(table);
		expect(signedRankCritical(5, 0.05), 'five pairs cannot reach 5 %').to.equal(-1);
	});

	it('agrees with @stdlib/stats-wilcoxon on random samples without ties', () => {
		const random = seededRandom(11);
		for (let n = 6; n <= 30; n += 3) {
			const differences = Array.from({ length: n }, () => normalFrom(random) + 0.4);
			const reference = wilcoxon(differences, { exact: true } as object) as { pValue: number };
			expect(signedRankP(differences), `n = ${n}`).to.be.closeTo(reference.pValue, 1e-9);
		}
	});

	it('is exact under ties and zeros, by enumeration of all signs', () => {
		const differences = [1, 1, 2, -2, 3, 3, 3, -1, 0, 0];
		const kept = differences.filter((value) => value !== 0);
		const ranks = doubledMidranks(kept.map(Math.abs));
		const observed = ranks.reduce((sum, rank, i) => (kept[i]! > 0 ? sum + rank : sum), 0);
		const centre = ranks.reduce((sum, rank) => sum + rank, 0) / 2;
		let extreme = 0;
		for (let signs = 0; signs < 2 ** kept.length; signs++) {
			const sum = ranks.reduce((total, rank, i) => (signs & (1 << i) ? total + rank : total), 0);
			if (Math.abs(sum - centre) >= Math.abs(observed - centre)) extreme++;
		}
		expect(signedRankP(differences)).to.be.closeTo(extreme / 2 ** kept.length, 1e-12);
		expect(signedRankP([0, 0, 0])).to.equal(1);
	});

	it('goes over to the normal approximation above 50 pairs without a jump', () => {
		const random = seededRandom(5);
		const differences = Array.from({ length: 50 }, () => normalFrom(random) + 0.3);
		const exact = signedRankP(differences);
		const reference = wilcoxon(differences, { exact: false, correction: true } as object) as { pValue: number };
		expect(Math.abs(exact - reference.pValue)).to.be.below(0.003);
		const more = Array.from({ length: 80 }, () => normalFrom(random) + 0.2);
		const large = wilcoxon(more, { exact: false, correction: true } as object) as { pValue: number };
		expect(signedRankP(more)).to.be.closeTo(large.pValue, 1e-6);
	});

	it('takes the median of the Walsh averages and their order statistics', () => {
		// Worked by hand: three differences, six averages.
		expect(walshAverages([1, 2, 6])).to.deep.equal([1, 1.5, 2, 3.5, 4, 6]);
		expect(pairedShift([1, 2, 6]).estimate).to.equal(2.75);
		const few = pairedShift([1, 2, 3, 4, 5]);
		expect([few.low, few.high]).to.deep.equal([-Infinity, Infinity]);
		const six = pairedShift([1, 2, 3, 4, 5, 6]);
		expect([six.low, six.high, six.p]).to.deep.equal([1, 6, 2 / 64]);
		expect(() => pairedShift([])).to.throw(RangeError);
	});

	it('covers the truth as often as it says', () => {
		const random = seededRandom(77);
		let covered = 0;
		for (let trial = 0; trial < 2000; trial++) {
			const { low, high } = pairedShift(Array.from({ length: 10 }, () => 3 + normalFrom(random)));
			if (low <= 3 && high >= 3) covered++;
		}
		// Exact level for ten pairs: 1 - 2 * P(W <= 8) = 95.1 %.
		expect(covered / 2000).to.be.within(0.935, 0.965);
	});
});

describe('rank sum', () => {
	it('has the critical values of the standard tables (two-sided 5 %, equal n = 5 to 10)', () => {
		expect([5, 6, 7, 8, 9, 10].map((n) => rankSumCritical(n, n, 0.05))).to.deep.equal([2, 5, 8, 13, 17, 23]);
	});

	it('is exact, by enumeration of all splits, with and without ties', () => {
		for (const [first, second] of [
			[
				[1, 4, 6, 9],
				[2, 3, 11, 12, 15]
			],
			[
				[1, 1, 2, 5],
				[1, 2, 2, 7, 7]
			]
		] as const) {
			const all = [...first, ...second];
			const ranks = doubledMidranks(all);
			const expected = first.length * (all.length + 1);
			const observed = ranks.slice(0, first.length).reduce((sum, rank) => sum + rank, 0);
			let splits = 0;
			let extreme = 0;
			for (let bits = 0; bits < 2 ** all.length; bits++) {
				const chosen = all.map((_, i) => i).filter((i) => bits & (1 << i));
				if (chosen.length !== first.length) continue;
				splits++;
				const sum = chosen.reduce((total, i) => total + ranks[i]!, 0);
				if (Math.abs(sum - expected) >= Math.abs(observed - expected)) extreme++;
			}
			expect(rankSumP(first, second)).to.be.closeTo(extreme / splits, 1e-12);
		}
	});

	it('shifts by the median of all differences', () => {
		expect(hodgesLehmann([1, 2, 3], [11, 12, 13])).to.equal(10);
		const { estimate, low, high } = twoSampleShift([1, 2, 3, 4, 5], [11, 12, 13, 14, 15]);
		expect(estimate).to.equal(10);
		expect(low).to.be.within(6, 10);
		expect(high).to.be.within(10, 14);
		expect(twoSampleShift([1, 2], [3, 4]).low).to.equal(-Infinity);
	});
});

describe('corrections and tables', () => {
	it('Holm: worked example with four tests', () => {
		const adjusted = holm([0.01, 0.04, 0.03, 0.005]);
		[0.03, 0.06, 0.06, 0.02].forEach((expected, i) => expect(adjusted[i]).to.be.closeTo(expected, 1e-12));
	});

	it('normal distribution: table values', () => {
		expect(normalCdf(1.959963984540054)).to.be.closeTo(0.975, 1e-14);
		expect(normalCdf(-8)).to.be.closeTo(6.220960574271785e-16, 1e-20);
		expect(normalQuantile(0.9)).to.be.closeTo(1.2815515655446004, 1e-12);
		expect(normalQuantile(0.0001)).to.be.closeTo(-3.719016485455709, 1e-10);
		expect(() => normalQuantile(1.2)).to.throw(RangeError);
	});

	it('summaries', () => {
		expect(median([3, 1, 2, 10])).to.equal(2.5);
		expect(quantileSorted([1, 2, 3, 4], 0.25)).to.equal(1.75);
		expect(scaledMad([1, 2, 3, 4, 5])).to.be.closeTo(1.4826, 1e-4);
		expect(outliers([10, 11, 9, 10, 40])).to.deep.equal([false, false, false, false, true]);
		expect(outliers([5, 5, 5, 9])).to.deep.equal([false, false, false, false]);
	});

	it('random numbers repeat with their seed and are even', () => {
		const item = seededRandom(42);
		const two = seededRandom(42);
		const values = Array.from({ length: 20_000 }, item);
		expect(values.slice(0, 50)).to.deep.equal(Array.from({ length: 50 }, two));
		expect(values.reduce((sum, value) => sum + value, 0) / values.length).to.be.closeTo(0.5, 0.01);
		const firsts = new Map<string, number>();
		const random = seededRandom(1);
		for (let i = 0; i < 6000; i++) {
			const order = shuffled(['a', 'b', 'c'], random).join('');
			firsts.set(order, (firsts.get(order) ?? 0) + 1);
		}
		expect([...firsts.values()].every((count) => Math.abs(count - 1000) < 130)).to.equal(true);
	});
});
