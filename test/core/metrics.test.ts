import { expect } from 'chai';
import { bandOf, marginFor, metricOf, noFigures } from '$core/metrics/catalogue';
import { FIELD_RECIPE, LAB_RECIPE, points, scoreOf } from '$core/metrics/score';
import {
	cumulativeLayoutShift,
	fullyLoaded,
	interactionToNextPaint,
	shiftWindows,
	totalBlockingTime
} from '$core/load/vitals/vitals';
import {
	colourHistogram,
	frameShowing,
	histogramDistance,
	speedIndex,
	visualProgress,
	visuallyComplete
} from '$core/load/vitals/visual';

describe('catalogue', () => {
	it('has the published thresholds (web.dev) and says where the others come from', () => {
		const published = { lcp: [2500, 4000], inp: [200, 500], cls: [0.1, 0.25], fcp: [1800, 3000], ttfb: [800, 1800] };
		for (const [id, [good, poor]] of Object.entries(published))
			expect(metricOf(id).thresholds).to.include({ good, poor });
		// web.dev, "Total Blocking Time": good below 200 ms; it publishes no poor threshold.
		expect(metricOf('tbt').thresholds).to.deep.equal({
			good: 200,
			poor: 500,
			source: 'good: web.dev, TBT; poor: house'
		});
		expect(() => metricOf('fid')).to.throw(RangeError);
	});

	it('counts the good threshold as good and the poor one as not yet poor', () => {
		expect([2500, 2501, 4000, 4001].map((ms) => bandOf('lcp', ms))).to.deep.equal([
			'good',
			'needs improvement',
			'needs improvement',
			'poor'
		]);
		expect([75, 74.9, 25, 24.9].map((score) => bandOf('score', score))).to.deep.equal([
			'good',
			'needs improvement',
			'needs improvement',
			'poor'
		]);
		expect(bandOf('lcp', null)).to.equal(null);
		expect(bandOf('wire', 1)).to.equal(null);
	});

	it('takes the larger of the two margins', () => {
		expect(marginFor('lcp', 1000)).to.equal(100);
		expect(marginFor('lcp', 4000)).to.equal(200);
		expect(marginFor('wire', 1_000_000)).to.equal(20_000);
		expect(marginFor('score', 90)).to.equal(3);
	});
});

describe('score', () => {
	it('gives 75 at the good anchor, 25 at the poor one, 50 at their geometric mean, 100 at zero', () => {
		expect(points(2500, 2500, 4000)).to.be.closeTo(75, 1e-9);
		expect(points(4000, 2500, 4000)).to.be.closeTo(25, 1e-9);
		expect(points(Math.sqrt(2500 * 4000), 2500, 4000)).to.be.closeTo(50, 1e-9);
		expect(points(0, 2500, 4000)).to.equal(100);
		expect(() => points(-1, 1, 2)).to.throw(RangeError);
		expect(() => points(1, 2, 1)).to.throw(RangeError);
	});

	it('weighs to 100 and loses what the metrics cost', () => {
		for (const recipe of [LAB_RECIPE, FIELD_RECIPE])
			expect(Object.values(recipe.weights).reduce((sum, weight) => sum + weight, 0)).to.equal(100);
		const score = scoreOf({ lcp: 2500, tbt: 200, cls: 0.1, fcp: 1800, si: 2800, ttfb: 800 });
		expect(score.value).to.be.closeTo(75, 1e-9);
		expect(score.parts.reduce((sum, part) => sum + part.cost!, 0)).to.be.closeTo(25, 1e-9);
	});

	it('is missing when a metric is missing, never re-weighted', () => {
		const score = scoreOf({ ...noFigures(), lcp: 100 });
		expect(score.value).to.equal(null);
		expect(score.parts.find((part) => part.metric === 'lcp')?.cost).to.be.above(0);
	});
});

describe('vitals from entries', () => {
	const shift = (atMs: number, value: number, recentInput = false) => ({ atMs, value, recentInput });

	it('CLS: a gap of a second or a length of five ends a window; input does not count', () => {
		expect(cumulativeLayoutShift([])).to.equal(0);
		expect(
			shiftWindows([shift(0, 0.1), shift(999, 0.1), shift(1999, 0.3)]).map((window) => window.value)
		).to.deep.equal([0.2, 0.3]);
		const chain = Array.from({ length: 8 }, (_, i) => shift(i * 900, 0.1));
		// 0 to 4,500 ms is six shifts; the seventh, at 5,400, opens a new window.
		expect(cumulativeLayoutShift(chain)).to.be.closeTo(0.6, 1e-12);
		expect(cumulativeLayoutShift([shift(10, 0.5, true), shift(20, 0.02)])).to.equal(0.02);
	});

	it('TBT: only beyond 50 ms, clipped to the window', () => {
		const tasks = [
			{ startMs: 0, durationMs: 200 },
			{ startMs: 300, durationMs: 49 },
			{ startMs: 400, durationMs: 150 },
			{ startMs: 950, durationMs: 300 }
		];
		expect(totalBlockingTime(tasks, 100, 1000)).to.equal(50 + 0 + 100 + 0);
		expect(totalBlockingTime(tasks, 0, 2000)).to.equal(150 + 100 + 250);
	});

	it('INP: the worst, leaving out one per fifty', () => {
		expect(interactionToNextPaint([])).to.equal(null);
		expect(interactionToNextPaint([40, 300, 80])).to.equal(300);
		expect(interactionToNextPaint([...Array.from({ length: 49 }, () => 40), 300, 500])).to.equal(300);
	});

	it('fully loaded: what comes after two quiet seconds is no longer the load', () => {
		expect(
			fullyLoaded(
				[
					{ startMs: 0, endMs: 400 },
					{ startMs: 100, endMs: 900 }
				],
				700
			)
		).to.equal(900);
		expect(
			fullyLoaded(
				[
					{ startMs: 0, endMs: 400 },
					{ startMs: 2800, endMs: 3000 }
				],
				700
			)
		).to.equal(700);
		expect(
			fullyLoaded(
				[
					{ startMs: 0, endMs: 400 },
					{ startMs: 2600, endMs: 3000 }
				],
				700
			)
		).to.equal(3000);
	});
});

describe('visual progress', () => {
	it('finds the frame that holds a paint, dated a little before or after it', () => {
		const frames = [{ atMs: 0 }, { atMs: 1700 }, { atMs: 2800 }];
		expect([1735, 1680, 2790, 20].map((at) => frameShowing(frames, at))).to.deep.equal([1, 1, 2, 0]);
		expect(frameShowing([], 5)).to.equal(-1);
	});

	it('Speed Index of an example worked by hand', () => {
		// Blank until 500 ms, half until 1,500 ms, 90 % until 2,000 ms, then complete:
		// 500 * 1 + 1000 * 0.5 + 500 * 0.1 = 1,050 ms.
		const frames = [
			{ atMs: 0, progress: 0 },
			{ atMs: 500, progress: 0.5 },
			{ atMs: 1500, progress: 0.9 },
			{ atMs: 2000, progress: 1 }
		];
		expect(speedIndex(frames)).to.be.closeTo(1050, 1e-9);
		expect(visuallyComplete(frames)).to.equal(2000);
		expect(visuallyComplete([...frames, { atMs: 2400, progress: 0.7 }, { atMs: 2600, progress: 1 }])).to.equal(2600);
		expect(speedIndex([])).to.equal(null);
	});

	it('measures progress by the colours still missing', () => {
		const blank = colourHistogram(new Uint8Array(30).fill(255), 3);
		const half = colourHistogram(new Uint8Array([...Array(15).fill(255), ...Array(15).fill(0)]), 3);
		const full = colourHistogram(new Uint8Array(30).fill(0), 3);
		expect(visualProgress([blank, half, full])).to.deep.equal([0, 0.5, 1]);
		expect(visualProgress([full, full])).to.deep.equal([1, 1]);
		expect(histogramDistance(blank, full)).to.equal(60);
		expect(colourHistogram(new Uint8Array([1, 2, 3, 255]), 4)[1]).to.equal(1);
	});
});
