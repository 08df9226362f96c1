import { expect } from 'chai';
import { blockOf, pseudoMedian } from '$core/watch/block';
import { withoutDrift } from '$core/watch/drift';
import { levelAtEnd, levelAtStart, type Point } from '$core/watch/level';
import { metricScatter, ownScatter, shrunk } from '$core/watch/scatter';
import { criticalZ, leastWithoutOne, middlesDiffer, stepOf, varianceWithin } from '$core/watch/step';

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

const point = (value: number, variance = 1, moved = 0): Point => ({ value, variance, moved });

describe('the level of some readings', () => {
	it('weighs each reading by how sure it is', () => {
		// Inverse variances 1 and 4: (10 + 4 * 20) / 5, with the variance 1 / 5.
		const level = levelAtEnd([point(10, 1), point(20, 0.25)])!;
		expect(level.value).to.be.closeTo(18, 1e-12);
		expect(level.variance).to.be.closeTo(0.2, 1e-12);
		expect(levelAtStart([point(10, 1), point(20, 0.25)])).to.deep.equal(level);
		expect(levelAtEnd([])).to.equal(null);
	});

	it('trusts what came before an update by what the update may have done, from either side', () => {
		// Older: variance 1 and 3 more for the update; newer: 1. Seen from the newest: (10 / 4 + 20) / (1 / 4 + 1).
		const points = [point(10), point(20, 1, 3)];
		expect(levelAtEnd(points)!.value).to.be.closeTo(18, 1e-12);
		expect(levelAtEnd(points)!.variance).to.be.closeTo(0.8, 1e-12);
		expect(levelAtStart(points)!.value).to.be.closeTo(12, 1e-12);
	});

	it('takes the mean of what never scatters', () => {
		expect(levelAtEnd([point(4, 0), point(6, 0)])).to.deep.equal({ value: 5, variance: 0 });
	});
});

describe('a step between readings', () => {
	it('has the size and standard error of a difference of means', () => {
		const { size, error, z } = stepOf([point(10), point(10)], [point(13), point(13)]);
		expect([size, error, z]).to.deep.equal([3, 1, 3]);
		expect(stepOf([point(13)], [point(10)]).z).to.be.below(0);
	});

	it('is less sure where an update of the lab falls between', () => {
		expect(stepOf([point(10)], [point(13, 1, 2)]).error).to.equal(2);
	});

	it('is beyond all doubt where nothing ever scattered, and nothing where nothing moved', () => {
		expect(stepOf([point(5, 0)], [point(6, 0)]).z).to.equal(Infinity);
		expect(stepOf([point(5, 0)], [point(5, 0)]).z).to.equal(0);
		expect(varianceWithin([block(5, 5, 5)])).to.equal(0);
	});

	it('is what is left of it without the reading that shows it most', () => {
		const before = Array.from({ length: 100 }, () => point(10));
		// Two readings of 20 and 10: without the first nothing is left, without the second all of the ten.
		expect(leastWithoutOne(before, [point(20), point(10)])).to.be.closeTo(0, 1e-12);
		expect(leastWithoutOne(before, [point(20), point(20)])).to.be.closeTo(10 / Math.sqrt(1.01), 1e-9);
		// One on the other side speaks against it.
		expect(leastWithoutOne(before, [point(30), point(5)])).to.be.below(0);
	});

	it('needs the middles to be dealt beyond chance, or as far apart as so few can be', () => {
		const rising = (count: number, from: number) => Array.from({ length: count }, (_, i) => from + i);
		expect(middlesDiffer(rising(5, 0), rising(2, 100))).to.equal(true);
		expect(middlesDiffer(rising(5, 0), [100, 3])).to.equal(false);
		// Mann-Whitney U = 2 of 8 and 8 lies far below the table's 13.
		expect(middlesDiffer(rising(8, 0), [...rising(7, 100), 5.5])).to.equal(true);
	});

	it('shares a chance among tests: one test at 5 % asks 1.96 standard errors (normal table)', () => {
		expect(criticalZ(0.05, 1)).to.be.closeTo(1.96, 0.001);
		// 0.05 / 50 two-sided: 3.2905; Student's t with 4 degrees of freedom at 5 %: 2.776 (tables).
		expect(criticalZ(0.05, 50)).to.be.closeTo(3.2905, 0.001);
		expect(criticalZ(0.05, 1, 4)).to.be.closeTo(2.776, 0.001);
	});
});

describe('how readings scatter', () => {
	const part = (...middles: number[]) => middles.map((middle) => ({ middle, variance: 0, loads: 5 }));

	it('is estimated for one figure: what is more than its loads let expect (method of moments)', () => {
		// About 10: squares 4 + 0 + 4 over two free readings are 4, of which loads make 1; as a share of 10 squared.
		const own = ownScatter([part(8, 10, 12)], () => 1)!;
		expect(own.between).to.be.closeTo(0.03, 1e-12);
		expect(own.freedom).to.equal(2);
		// Two levels give one free reading each, and the step between them none.
		expect(ownScatter([part(10, 10), part(20, 20)], () => 0)).to.deep.include({ between: 0, freedom: 2 });
		expect(ownScatter([part(8)], () => 1)).to.equal(null);
	});

	const shows = (between: number, freedom = 20) => ({ between, within: 0, freedom });

	it('is drawn towards what the metric does elsewhere where pages are alike, and left where they differ', () => {
		const alike = metricScatter([1.1, 0.9, 1, 1.05, 0.95].map((share) => shows(share * 1e-4)))!;
		expect(alike.between).to.be.closeTo(1e-4, 1e-9);
		expect(alike.freedom).to.equal(60);
		expect(shrunk(shows(3e-4), alike).between).to.be.within(1e-4, 2e-4);
		const unlike = metricScatter([shows(1e-2), ...Array.from({ length: 7 }, () => shows(1e-4))])!;
		expect(unlike.freedom).to.equal(2);
		expect(shrunk(shows(1e-2), unlike).between).to.be.above(0.8e-2);
	});

	it('is never nothing where loads hide it', () => {
		const hidden = shrunk({ between: -1e-3, within: 3e-3, freedom: 5 }, null);
		expect(hidden.between).to.be.above(1e-4);
		expect(shrunk(null, null)).to.deep.equal({ between: 0, freedom: 0 });
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
		// The control's own scatter, a variance of 1 in 5 loads, hides next to nothing of a drift of 30.
		for (const { middle } of blocks) expect(middle).to.be.closeTo(2000 * centre, 1);
	});

	it('moves what was read before an update by what the update did to the control', () => {
		const factors = [1, 1, 1, 1, 1.1, 1.1, 1.1, 1.1];
		const { blocks, from, moves } = withoutDrift(steady(2200, factors), steady(500, factors), [4]);
		expect(from).to.equal(0);
		for (const { middle } of blocks) expect(middle).to.be.closeTo(2200 * 1.1, 1e-6);
		expect(moves[4]).to.be.above(0);
		// Without a control before it nothing is known of it.
		const late = steady(500, factors).map((block, i) => (i < 4 ? null : block));
		expect(withoutDrift(steady(2200, factors), late, [4]).from).to.equal(4);
	});

	it('is left where page and control share nothing', () => {
		const page = steady(2000, [1, 1.001, 0.999, 1, 1.001, 1, 0.999]);
		const wild = steady(500, [1, 2, 0.5, 1.5, 1, 0.3, 1.8]);
		expect(withoutDrift(page, wild)).to.deep.include({ blocks: page, share: 0 });
		// Over an update nothing is known of what the lab did: only what came since counts.
		expect(withoutDrift(page, wild, [4]).from).to.equal(4);
	});

	it('is not looked for in a handful of readings', () => {
		const page = steady(2000, [1, 1.1, 1]);
		expect(withoutDrift(page, steady(500, [1, 1.1, 1])).share).to.equal(0);
	});
});
