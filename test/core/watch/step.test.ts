import { expect } from 'chai';
import { blockOf, pseudoMedian } from '$core/watch/block';
import { withoutDrift } from '$core/watch/drift';
import { criticalZ, middlesDiffer, stepOf, varianceBetween, varianceWithin } from '$core/watch/step';

const block = (...figures: number[]) => blockOf(figures)!;

describe('a reading as a block', () => {
	it('has the median of the means of all pairs as its middle', () => {
		// Pairs of 1, 2, 9: 1, 1.5, 5, 2, 5.5, 9; their middle lies between 2 and 5.
		expect(pseudoMedian([1, 2, 9])).to.equal(3.5);
		expect(pseudoMedian([4])).to.equal(4);
	});

	it('knows its variance and its loads, and is nothing without any', () => {
		expect(block(1, 3)).to.deep.equal({ middle: 2, variance: 2, loads: 2 });
		expect(blockOf([])).to.equal(null);
	});
});

describe('a step between readings', () => {
	it('has the size and standard error of a difference of means where readings differ by their loads alone', () => {
		// Two readings of 4 loads each, variance 4 within: a mean of 8 loads has the variance 0.5, both sides 1 together.
		const before = [10, 10].map((middle) => ({ middle, variance: 4, loads: 4 }));
		const after = [13, 13].map((middle) => ({ middle, variance: 4, loads: 4 }));
		const { size, error, z } = stepOf(before, after, 0);
		expect(size).to.equal(3);
		expect(error).to.be.closeTo(1, 1e-12);
		expect(z).to.be.closeTo(3, 1e-12);
	});

	it('is as sure as what readings differ among themselves allows, however many loads they have', () => {
		const of = (middle: number) => ({ middle, variance: 4, loads: 1000 });
		// Between readings 0.5 of 4: two readings a side have the variance 1 each (and almost nothing of the loads).
		expect(stepOf([of(10), of(10)], [of(13), of(13)], 0.5).error).to.be.closeTo(Math.SQRT2, 0.01);
	});

	it('estimates what readings differ among themselves (method of moments)', () => {
		// Middles 8, 10, 12 of 4 loads, variance 4: spread 4 * (4 + 0 + 4) / 4 = 8 where 2 is expected; (8 - 2) / (12 - 4).
		const blocks = [8, 10, 12].map((middle) => ({ middle, variance: 4, loads: 4 }));
		expect(varianceBetween([blocks])).to.be.closeTo(0.75, 1e-12);
		expect(varianceBetween([[block(1, 2), block(1, 2), block(1, 2)]])).to.equal(0);
	});

	it('is beyond all doubt where nothing ever scattered, and nothing where nothing moved', () => {
		const still = block(5, 5, 5);
		expect(stepOf([still, still], [block(6, 6)], 0).z).to.equal(Infinity);
		expect(stepOf([still, still], [still], 0).z).to.equal(0);
		expect(varianceWithin([still])).to.equal(0);
	});

	it('needs the middles to be dealt beyond chance: 2 after 8 can be, 1 after 20 never (table of Mann and Whitney)', () => {
		const rising = (count: number, from: number) => Array.from({ length: count }, (_, i) => block(from + i));
		// The smallest two-sided p is 2 / C(n + m, m): 2 of 10 gives 0.044, 2 of 9 gives 0.056, 1 of 21 gives 0.095.
		expect(middlesDiffer(rising(8, 0), rising(2, 100))).to.equal(true);
		expect(middlesDiffer(rising(7, 0), rising(2, 100))).to.equal(false);
		expect(middlesDiffer(rising(20, 0), rising(1, 100))).to.equal(false);
	});

	it('shares a chance among tests: one test at 5 % asks 1.96 standard errors (normal table)', () => {
		expect(criticalZ(0.05, 1)).to.be.closeTo(1.96, 0.001);
		// 0.05 / 50 two-sided: 3.2905.
		expect(criticalZ(0.05, 50)).to.be.closeTo(3.2905, 0.001);
	});
});

describe('the lab’s own drift', () => {
	const steady = (level: number, factors: number[]) =>
		factors.map((factor) => ({ middle: level * factor, variance: 1, loads: 5 }));

	it('is taken off in proportion', () => {
		const factors = [1, 1.1, 0.95, 1.05, 1, 0.9, 1.02];
		const { blocks, share } = withoutDrift(steady(2000, factors), steady(500, factors));
		expect(share).to.be.closeTo(4, 1e-9);
		const centre = factors.reduce((sum, factor) => sum + factor, 0) / factors.length;
		for (const { middle } of blocks) expect(middle).to.be.closeTo(2000 * centre, 1e-6);
	});

	it('is left where page and control share nothing', () => {
		const page = steady(2000, [1, 1.001, 0.999, 1, 1.001, 1, 0.999]);
		const wild = steady(500, [1, 2, 0.5, 1.5, 1, 0.3, 1.8]);
		expect(withoutDrift(page, wild)).to.deep.equal({ blocks: page, share: 0 });
	});

	it('is not looked for in a handful of readings', () => {
		const page = steady(2000, [1, 1.1, 1]);
		expect(withoutDrift(page, steady(500, [1, 1.1, 1])).share).to.equal(0);
	});
});
