import { expect } from 'chai';
import type { FilmClock } from '../../src/lib/charts/filmClock.svelte';

/** A browser's frames, shown when the test says so. */
function frames() {
	const waiting: ((now: number) => void)[] = [];
	const own = globalThis as unknown as Record<string, unknown>;
	const before = { requestAnimationFrame: own.requestAnimationFrame, Image: own.Image };
	const asked: string[] = [];
	own.requestAnimationFrame = (next: (now: number) => void) => waiting.push(next);
	own.Image = class {
		onload: () => void = () => undefined;
		set src(address: string) {
			asked.push(address);
			queueMicrotask(() => this.onload());
		}
	};
	return {
		asked,
		get open() {
			return waiting.length;
		},
		show: (now: number) => waiting.splice(0).forEach((next) => next(now)),
		end: () => Object.assign(own, before)
	};
}

describe('the clock of films', () => {
	let screen: ReturnType<typeof frames>;
	let clockOf: (endMs: number) => FilmClock;
	before(async () => {
		// Its state is compiled on the way, which only an import that is made now goes through.
		const { FilmClock: Clock } = await import('$lib/charts/filmClock.svelte');
		clockOf = (endMs) => new Clock(endMs);
	});
	beforeEach(() => (screen = frames()));
	afterEach(() => screen.end());

	it('stands at the end, and begins anew from there once all pictures have come', async () => {
		const clock = clockOf(1000);
		expect([clock.at, clock.isAtEnd, clock.isPlaying]).to.deep.equal([1000, true, false]);
		await clock.toggle(['/a', '/b']);
		expect(screen.asked).to.deep.equal(['/a', '/b']);
		expect([clock.at, clock.isPlaying]).to.deep.equal([0, true]);
	});

	it('moves on by the time that went by, at its speed, and ends by itself', async () => {
		const clock = clockOf(1000);
		await clock.toggle([]);
		const from = performance.now();
		screen.show(from + 400);
		// The frame asks for the next one; a little time went by before it.
		expect(clock.at).to.be.within(390, 410);
		clock.speed = 0.25;
		const half = clock.at;
		screen.show(from + 800);
		expect(clock.at).to.be.closeTo(half + 100, 1e-6);
		clock.speed = 1;
		screen.show(from + 10_000);
		expect([clock.at, clock.isPlaying, screen.open]).to.deep.equal([1000, false, 0]);
	});

	it('pauses where it is, and goes on from there', async () => {
		const clock = clockOf(1000);
		await clock.toggle([]);
		screen.show(performance.now() + 300);
		await clock.toggle([]);
		const paused = clock.at;
		screen.show(performance.now() + 900);
		expect([clock.at, clock.isPlaying, screen.open]).to.deep.equal([paused, false, 0]);
		await clock.toggle([]);
		expect([clock.at, clock.isPlaying]).to.deep.equal([paused, true]);
	});

	it('stands still where somebody moves it to by hand', async () => {
		const clock = clockOf(1000);
		await clock.toggle([]);
		clock.seek(250);
		expect([clock.at, clock.isPlaying]).to.deep.equal([250, false]);
		// The slider tells back what it was told: that is no hand.
		await clock.toggle([]);
		clock.seek(250.4);
		expect(clock.isPlaying).to.equal(true);
	});
});
