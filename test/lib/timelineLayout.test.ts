import { expect } from 'chai';
import { frameAt } from '$core/compare/film';
import {
	busyBars,
	LABEL_HEIGHT,
	labelsFor,
	lastMoment,
	notesBetween,
	placeLines,
	placeOf,
	stripMoments
} from '../../src/lib/charts/timelineLayout';

const frames = [
	{ atMs: 0, progress: 0 },
	{ atMs: 400, progress: 0.5 },
	{ atMs: 900, progress: 1 }
];

describe('the band of a busy machine', () => {
	const track = {
		endsMs: [60, 160, 260],
		busyMs: [100, 60, 100],
		stolenMs: [0, 40, 0],
		foreignMs: [0, 0, 20],
		pressureMs: null
	};

	it('has a bar for each sample in which something else ran, as high as its share', () => {
		// 40 of 60 + 40 wanted, above the 30 % of a counted half second; then 20 of 100.
		expect(busyBars(track)).to.deep.equal({
			bars: [
				{ fromMs: 60, toMs: 160, share: 0.4, isHigh: true },
				{ fromMs: 160, toMs: 260, share: 0.2, isHigh: false }
			],
			endMs: 260
		});
	});

	it('is empty where the machine does not tell', () => {
		expect(busyBars({ ...track, stolenMs: null, foreignMs: null }).bars).to.deep.equal([]);
		expect(busyBars({ endsMs: [], busyMs: [], stolenMs: null, foreignMs: null, pressureMs: null }).endMs).to.equal(0);
	});
});

describe('layout of a load’s timeline', () => {
	it('puts as many pictures on the strip as fit, each ending at its moment', () => {
		// 500 px of axis for 1,000 ms and 2 % of room; pictures of 94 px and a gap of 6: five of them, every 204 ms.
		const moments = stripMoments({ name: 'wide', least: 700, left: 150, right: 50 }, 1000, 94);
		expect(moments.map(Math.round)).to.deep.equal([204, 408, 612, 816, 1020]);
		expect(stripMoments({ name: 'narrow', least: 320, left: 112, right: 8 }, 1000, 300)).to.have.length(2);
	});

	it('places moments as shares of the axis, with a little room after the last', () => {
		expect(placeOf(510, 1000)).to.equal(0.5);
		expect(placeOf(1000, 1000)).to.be.below(1);
	});

	it('shows the frame that was on screen', () => {
		expect([-5, 0, 399, 400, 5000].map((ms) => frameAt({ frames }, ms))).to.deep.equal([0, 0, 0, 1, 2]);
	});

	it('notes what happened between two pictures, once', () => {
		const notes = [
			{ frame: 1, words: 'shift' },
			{ frame: 1, words: 'shift' },
			{ frame: 2, words: 'LCP' },
			{ frame: 7, words: 'gone' }
		];
		expect(notesBetween(notes, frames, -1, 300)).to.deep.equal([]);
		expect(notesBetween(notes, frames, 300, 400)).to.deep.equal(['shift']);
		expect(notesBetween(notes, frames, 300, 900)).to.deep.equal(['shift', 'LCP']);
	});

	it('steps labels down that would overlap, and turns those that would leave the chart', () => {
		// An axis of 510 px for 500 ms and 2 % of room: a pixel a millisecond; 20 px stand right of it.
		const placed = placeLines(
			[
				{ name: 'LCP', atMs: 130 },
				{ name: 'FCP', atMs: 100 },
				{ name: 'full', atMs: 480 }
			],
			{ name: 'wide', least: 630, left: 100, right: 20 },
			500
		);
		// "FCP" is 3 letters of 6.6 px and 52 px of figure, 71.8 px: it ends at 171.8, beyond 130.
		expect(placed.map(({ name, level, flip }) => [name, level, flip])).to.deep.equal([
			['FCP', 0, false],
			['LCP', 1, false],
			['full', 0, true]
		]);
	});

	it('leaves as much room above as the rows of labels take', () => {
		const width = { name: 'wide', least: 630, left: 100, right: 20 } as const;
		const near = [100, 101, 102].map((atMs, i) => ({ name: `m${i}`, atMs }));
		expect(labelsFor(near, width, 500).height).to.equal(3 * LABEL_HEIGHT + 4);
		expect(labelsFor([], width, 500).height).to.equal(LABEL_HEIGHT + 4);
	});

	it('ends after the last thing that is known', () => {
		expect(lastMoment([null, 30])).to.equal(100);
		expect(lastMoment([null, 30, 4000])).to.equal(4000);
	});
});
