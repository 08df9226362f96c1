import { expect } from 'chai';
import { placeHistory, segmentsOf } from '../../src/lib/charts/historyLayout';

const point = (at: string, middle: number, low = middle, high = middle) => ({ at, middle, low, high });

describe('where the readings of a history stand', () => {
	const points = [
		point('2026-01-01T00:00:00Z', 1000),
		point('2026-01-11T00:00:00Z', 2000),
		point('2026-01-21T00:00:00Z', 1500)
	];

	it('puts time from left to right and zero at the bottom', () => {
		const places = placeHistory(points, [], 200, 100)!;
		expect([0, 1, 2].map((i) => places.x(points[i]!.at))).to.deep.equal([0, 100, 200]);
		expect(places.y(0)).to.equal(100);
		// The largest value has 5 % of room above it: 2000 of 2100.
		expect(places.y(2000)).to.be.closeTo(100 * (1 - 2000 / 2100), 1e-9);
	});

	it('cuts the spread of a wild load rather than flattening everything else', () => {
		const wild = [...points, point('2026-01-31T00:00:00Z', 1500, 1400, 90_000)];
		const places = placeHistory(wild, [], 200, 100)!;
		expect(places.y(2000)).to.be.below(30);
		expect(places.y(90_000)).to.equal(0);
	});

	it('shows a threshold only where it is near the figures', () => {
		expect(placeHistory(points, [2500], 200, 100)!.y(2500)).to.be.above(0);
		expect(placeHistory(points, [25_000], 200, 100)!.y(2000)).to.be.below(10);
	});

	it('places what was released within the history, and nothing outside of it', () => {
		const places = placeHistory(points, [], 200, 100)!;
		expect(places.isWithin('2026-01-01')).to.equal(true);
		expect(places.isWithin('2026-01-15')).to.equal(true);
		expect(places.isWithin('2025-12-31')).to.equal(false);
		expect(places.isWithin('2026-02-01')).to.equal(false);
	});

	it('names each day once, where a history is only minutes old, and the day stands within the chart', () => {
		const places = placeHistory(
			[point('2026-01-01T08:08:00Z', 1000), point('2026-01-01T08:14:00Z', 900)],
			[],
			200,
			100
		)!;
		expect(places.days).to.deep.equal(['2026-01-01']);
		expect(places.x('2026-01-01')).to.equal(0);
		expect(places.x('2026-01-01T08:14:00Z')).to.equal(200);
	});

	it('is nothing without readings, and stands with one', () => {
		expect(placeHistory([], [], 200, 100)).to.equal(null);
		expect(placeHistory([points[0]!], [], 200, 100)!.x(points[0]!.at)).to.equal(0);
	});

	it('parts a history where the lab changed', () => {
		const parts = segmentsOf(points, ['2026-01-11T00:00:00Z']);
		expect(parts.map((part) => part.length)).to.deep.equal([1, 2]);
		expect(segmentsOf(points, [])).to.deep.equal([points]);
		expect(
			segmentsOf(points, ['2026-01-05T00:00:00Z', '2026-01-21T00:00:00Z']).map((part) => part.length)
		).to.deep.equal([1, 1, 1]);
	});
});
