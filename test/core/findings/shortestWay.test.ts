import { expect } from 'chai';
import { shortestWay, type Over } from '$core/findings/shortestWay';

const over = (excess: number, savings: Record<string, number>): Over => ({
	excess,
	savings: new Map(Object.entries(savings))
});

describe('the shortest way into the targets', () => {
	it('is the smallest set that brings every page within, the one that saves more of two alike', () => {
		// Worked by hand: b alone misses page 2; a and c reach both, as do b and c, which save more.
		const pages = [over(50, { a: 50, b: 60, c: 10 }), over(30, { a: 0, b: 10, c: 25 })];
		expect(shortestWay(pages)).to.deep.equal({ causes: ['b', 'c'], isSmallest: true });
		expect(shortestWay([over(40, { a: 50, b: 45 })])).to.deep.equal({ causes: ['a'], isSmallest: true });
	});

	it('is none where all savings together do not reach it, or nothing is over', () => {
		expect(shortestWay([over(100, { a: 50, b: 40 })])).to.equal(null);
		expect(shortestWay([over(10, { a: 50 }), over(10, {})])).to.equal(null);
		expect(shortestWay([])).to.equal(null);
		expect(() => shortestWay([over(0, { a: 1 })])).to.throw(RangeError);
	});

	it('is as short as trying every set finds it', () => {
		let seed = 7;
		const random = () => (seed = (seed * 48271) % 2147483647) / 2147483647;
		for (let run = 0; run < 60; run++) {
			const names = ['a', 'b', 'c', 'd', 'e', 'f'];
			const pages = [1, 2, 3].map(() =>
				over(20 + 40 * random(), Object.fromEntries(names.map((name) => [name, Math.floor(40 * random())])))
			);
			const reaches = (set: readonly string[]) =>
				pages.every(({ excess, savings }) => set.reduce((sum, name) => sum + savings.get(name)!, 0) >= excess);
			const sets = Array.from({ length: 64 }, (_, mask) => names.filter((_n, i) => mask & (1 << i))).filter(reaches);
			const least = sets.length ? Math.min(...sets.map(({ length }) => length)) : null;
			const way = shortestWay(pages);
			expect(way && reaches(way.causes)).to.equal(least === null ? null : true);
			if (way?.isSmallest) expect(way.causes.length).to.equal(least);
			else if (way) expect(way.causes.length).to.be.at.least(least!);
		}
	});

	it('is looked for step by step where it is long, and says so', () => {
		const names = Array.from({ length: 30 }, (_, i) => `f${i}`);
		const way = shortestWay([over(100, Object.fromEntries(names.map((name) => [name, 10])))]);
		expect(way).to.include({ isSmallest: false });
		expect(way!.causes).to.have.length(10);
	});
});
