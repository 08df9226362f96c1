import { expect } from 'chai';
import { frameAt, sharedMoments, type Film } from '$core/compare/film';

const film = (arm: number, ...frames: [atMs: number, progress: number][]): Film => ({
	arm,
	load: arm,
	frames: frames.map(([atMs, progress]) => ({ atMs, progress })),
	lcpMs: null,
	shiftsMs: [],
	width: 100,
	height: 100
});
const quick = film(1, [0, 0], [500, 0.6], [900, 1]);
const slow = film(2, [0, 0], [800, 0.4], [1500, 0.98], [2600, 1]);

describe('moments at which films are looked at together', () => {
	it('are the first paint of the quickest, its end, and the end of all', () => {
		expect(sharedMoments([slow, quick])).to.deep.equal([
			{ kind: 'first-paint', atMs: 500, arm: 1 },
			{ kind: 'first-finished', atMs: 900, arm: 1 },
			{ kind: 'all-finished', atMs: 2600, arm: 2 }
		]);
	});

	it('are fewer where they fall together', () => {
		expect(sharedMoments([quick]).map(({ kind }) => kind)).to.deep.equal(['first-paint', 'first-finished']);
		expect(sharedMoments([film(1, [0, 1])])).to.have.length(1);
		expect(sharedMoments([])).to.deep.equal([]);
	});

	it('show the frame that stands at the moment', () => {
		expect([0, 499, 500, 899, 5000].map((ms) => frameAt(quick, ms))).to.deep.equal([0, 0, 1, 1, 2]);
		expect(frameAt(film(1, [40, 0], [90, 1]), 10)).to.equal(0);
	});
});
