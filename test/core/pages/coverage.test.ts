import { expect } from 'chai';
import fc from 'fast-check';
import { coverageOf, nextPage, proposeSample } from '$core/pages/coverage';
import { coverageLine, nextWords } from '$core/wording/coverage';

interface Countable {
	id: number;
	type: string | null;
	visits: number | null;
}
const page = (id: number, type: string | null, visits: number | null): Countable => ({ id, type, visits });

/** Worked by hand: 1,000 visits in all, four types. */
const PAGES = [
	page(1, 'home', 400),
	page(2, 'product', 250),
	page(3, 'product', 150),
	page(4, 'article', 100),
	page(5, 'contact', 40),
	page(6, null, 60)
];

describe('what a choice of pages covers', () => {
	it('is its types and its share of the visits, and what its types carry', () => {
		const coverage = coverageOf(PAGES, new Set([1, 2, 5]));
		expect(coverage).to.deep.equal({
			pages: 3,
			types: { covered: 3, all: 4, missing: ['article'] },
			traffic: 0.69,
			typeTraffic: 0.84,
			quiet: 3
		});
		expect(coverageLine(coverage)).to.equal('3 pages: 3 of 4 types, 69\u00a0% of visits');
	});

	it('counts visits to pages that are not in the list', () => {
		const rest = {
			visits: 1000,
			byType: new Map([
				['product', 200],
				['legal', 5]
			])
		};
		const coverage = coverageOf(PAGES, new Set([1, 2]), rest);
		// 650 of 2,000; of their types 400 + 250 + 150 and 200 beyond the list.
		expect([coverage.traffic, coverage.typeTraffic]).to.deep.equal([0.325, 0.5]);
		expect(coverage.types).to.deep.equal({ covered: 2, all: 5, missing: ['article', 'contact', 'legal'] });
	});

	it('says nothing of traffic where none is known', () => {
		const untold = PAGES.map(({ id, type }) => page(id, type, null));
		const coverage = coverageOf(untold, new Set([1, 4]));
		expect([coverage.traffic, coverage.typeTraffic, coverage.quiet]).to.deep.equal([null, null, 0]);
		expect(coverageLine(coverage)).to.equal('2 pages: 2 of 4 types');
	});
});

describe('a proposed sample', () => {
	it('takes the busiest page of each type, then the busiest others until the share is reached', () => {
		// The types alone carry 400 + 250 + 100 + 40 = 790 of 1,000.
		expect(proposeSample(PAGES, { wanted: 0.79 })).to.deep.equal([1, 2, 4, 5]);
		expect(proposeSample(PAGES, { wanted: 0.8 })).to.deep.equal([1, 2, 3, 4, 5]);
	});

	it('stops where no more pages may come, and never takes pages without visits for their share', () => {
		expect(proposeSample(PAGES, { wanted: 1, most: 4 })).to.deep.equal([1, 2, 4, 5]);
		const quiet = [page(1, 'home', 10), page(2, null, 0), page(3, null, null)];
		expect(proposeSample(quiet, { wanted: 1, rest: 90 })).to.deep.equal([1]);
	});

	it('covers the types where no traffic is known', () => {
		expect(proposeSample([page(1, 'home', null), page(2, 'article', null), page(3, 'article', null)])).to.deep.equal([
			1, 2
		]);
	});

	/** Fewest pages that cover all types and the share; by trying every set. */
	function smallest(pages: readonly Countable[], wanted: number): number {
		const types = new Set(pages.flatMap(({ type }) => type ?? []));
		const total = pages.reduce((sum, { visits }) => sum + visits!, 0);
		let best = Infinity;
		for (let set = 0; set < 1 << pages.length; set++) {
			const own = pages.filter((_, i) => set & (1 << i));
			const covers = new Set(own.flatMap(({ type }) => type ?? [])).size === types.size;
			const visits = own.reduce((sum, page) => sum + page.visits!, 0);
			if (covers && visits >= wanted * total - 1e-9 && own.length < best) best = own.length;
		}
		return best;
	}

	it('is never larger than the best of all sets (brute force over small cases)', () => {
		const arbitrary = fc.array(
			fc.record({
				type: fc.constantFrom('home', 'product', 'article', 'contact', null),
				visits: fc.integer({ min: 1, max: 1000 })
			}),
			{ minLength: 1, maxLength: 11 }
		);
		fc.assert(
			fc.property(arbitrary, fc.integer({ min: 0, max: 100 }), (rows, percent) => {
				const wanted = percent / 100;
				const pages = rows.map((row, i) => ({ ...row, id: i + 1 }));
				const sample = proposeSample(pages, { wanted, most: 12 });
				expect(coverageOf(pages, new Set(sample)).types.missing).to.deep.equal([]);
				expect(sample.length).to.equal(smallest(pages, wanted));
			}),
			{ numRuns: 150, seed: 7 }
		);
	});
});

describe('one more page', () => {
	it('adds a missing type first, else the most visits, else nothing', () => {
		expect(nextPage(PAGES, new Set([1, 2]))).to.deep.equal({ id: 4, newType: 'article', addedTraffic: 0.1 });
		const all = new Set([1, 2, 4, 5]);
		expect(nextPage(PAGES, all)).to.deep.equal({ id: 3, newType: null, addedTraffic: 0.15 });
		expect(nextPage([page(1, 'home', 5), page(2, null, 0)], new Set([1]))).to.equal(null);
	});

	it('is told by what it adds', () => {
		expect(nextWords({ newType: 'article', addedTraffic: 0.1 })).to.equal(
			'adds the type “article” and 10\u00a0% of visits'
		);
		expect(nextWords({ newType: null, addedTraffic: 0.15 })).to.equal('adds 15\u00a0% of visits');
		expect(nextWords({ newType: 'article', addedTraffic: null })).to.equal('adds the type “article”');
	});
});
