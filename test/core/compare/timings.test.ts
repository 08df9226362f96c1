import { expect } from 'chai';
import { compareTimings } from '$core/compare/timings';
import { wordTimingMargin } from '$core/wording/shift';

const load = (round: number, timings: Record<string, number>) => ({ round, timings });

describe('custom timings of two variants', () => {
	it('are compared round by round, with the exact interval of the paired differences', () => {
		const before = [1, 2, 3, 4, 5, 6].map((round) => load(round, { menu: 400 + round }));
		const after = [1, 2, 3, 4, 5, 6].map((round) => load(round, { menu: 300 + round + 2 * round }));
		const [menu] = compareTimings(before, after, true, 0.95);
		// Differences -98, -96, -94, -92, -90, -88: their Walsh averages lie between -98 and -88, the middle is -93.
		expect(menu).to.deep.include({ name: 'menu', rounds: 6, baseline: 403.5 });
		expect(menu!.shift).to.deep.equal({ estimate: -93, low: -98, high: -88 });
	});

	it('of stages are compared as two samples', () => {
		const before = [1, 2, 3, 4].map((round) => load(round, { menu: 400 }));
		const after = [1, 2, 3, 4].map((round) => load(round, { menu: 460 }));
		expect(compareTimings(before, after, false, 0.95)[0]!.shift.estimate).to.equal(60);
	});

	it('need four rounds in which both set them, and have no interval from fewer than six', () => {
		const rounds = [1, 2, 3, 4];
		const before = rounds.map((round) => load(round, { menu: 400, rare: 5 }));
		const after = rounds.map((round) => load(round, round < 4 ? { menu: 380, rare: 5 } : { menu: 380 }));
		const told = compareTimings(before, after, true, 0.95);
		expect(told.map(({ name }) => name)).to.deep.equal(['menu']);
		expect(told[0]!.shift).to.deep.equal({ estimate: -20, low: null, high: null });
		expect(
			compareTimings(
				before,
				rounds.map((round) => load(round + 10, { menu: 1 })),
				true,
				0.95
			)
		).to.deep.equal([]);
	});
});

describe('the margin of a page’s own timing', () => {
	it('is set against its interval, without a verdict', () => {
		const words = (low: number | null, high: number | null, margin: number | null = 100) =>
			wordTimingMargin({ low, high }, margin).replace(/\u00a0/g, ' ');
		expect(words(-20, 60)).to.equal('all within the margin of 100 ms');
		expect(words(100, 160)).to.equal('all beyond the margin of 100 ms');
		expect(words(-300, -100)).to.equal('all beyond the margin of 100 ms');
		expect(words(60, 160)).to.equal('reaches over the margin of 100 ms');
		expect(words(-20, 100)).to.equal('reaches over the margin of 100 ms');
		expect([words(null, null), words(10, 20, null)]).to.deep.equal(['', '']);
	});
});
