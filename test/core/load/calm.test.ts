import { expect } from 'chai';
import {
	busyShares,
	CALM_LIMITS,
	disturbanceOf,
	isCalm,
	isResting,
	othersShare,
	samplesWithin,
	trackOf,
	worstBurst,
	type CalmSample
} from '$core/load/vitals/calm';

/** A tenth of a second on two processors, ending at `atMs`. */
const sample = (atMs: number, busyMs: number, foreignMs = 0, stolenMs = 0): CalmSample => ({
	atMs,
	spanMs: 100,
	busyMs,
	stolenMs,
	foreignMs,
	stopped: false,
	pressureMs: null
});
/** So many tenths of a second, each alike. */
const span = (count: number, busyMs: number, foreignMs = 0, stolenMs = 0, fromMs = 0) =>
	Array.from({ length: count }, (_, i) => sample(fromMs + (i + 1) * 100, busyMs, foreignMs, stolenMs));

describe('a calm machine', () => {
	it('gives little of what is wanted to others', () => {
		// 20 stolen of 80 + 20 wanted, 30 of the 80 foreign.
		expect(othersShare([sample(100, 80, 30, 20)])).to.equal(0.5);
		expect(othersShare([])).to.equal(null);
	});

	it('is not made busy by a single tick while next to nothing is wanted', () => {
		// 10 ms in 300 ms: of 25 % of one processor, 75 ms.
		expect(othersShare(span(2, 0).concat(sample(300, 10, 10)))).to.be.closeTo(10 / 75, 1e-9);
	});

	it('has its browser at rest while that does less than a quarter of one processor’s work', () => {
		const short = (atMs: number, busyMs: number, foreignMs = 0) => ({ ...sample(atMs, busyMs, foreignMs), spanMs: 40 });
		expect(isResting([]), 'nothing known').to.equal(true);
		expect(isResting([sample(100, 150), sample(200, 25)])).to.equal(true);
		expect(isResting([sample(100, 0), sample(200, 26)])).to.equal(false);
		expect(isResting([sample(100, 80, 70)]), 'others are not the browser').to.equal(true);
		// Ticks of 10 ms: 40 ms without one say little, so that 80 ms at least are looked at.
		expect(isResting([short(40, 40), short(80, 0)])).to.equal(false);
		expect(isResting([short(40, 40), short(80, 0), short(120, 10)])).to.equal(true);
	});

	it('must have been calm for 300 ms; what is not told does not hold a load up', () => {
		const calm = span(4, 60, 2);
		expect(isCalm(calm, CALM_LIMITS)).to.equal(true);
		expect(isCalm(calm.slice(0, 2), CALM_LIMITS), 'watched for 200 ms').to.equal(false);
		expect(isCalm([...calm, sample(500, 160, 100)], CALM_LIMITS)).to.equal(false);
		expect(isCalm([...span(2, 160, 100), ...span(3, 60, 0, 0, 200)], CALM_LIMITS), 'busy before that').to.equal(true);
		const untold = calm.map((item) => ({ ...item, stolenMs: null, foreignMs: null }));
		expect(isCalm(untold, CALM_LIMITS)).to.equal(null);
	});
});

describe('a disturbed load', () => {
	it('lost more than a tenth of what was wanted to others', () => {
		// 12 of 100 in every sample: 12 % over the load, and in every half second.
		expect(disturbanceOf(span(30, 90, 2, 10), CALM_LIMITS)).to.deep.equal({
			share: 0.12,
			burst: 0.12,
			disturbed: true
		});
		expect(disturbanceOf(span(30, 90, 0, 8), CALM_LIMITS)!.disturbed).to.equal(false);
	});

	it('or three tenths of it within any half second', () => {
		// Half a second of 40 stolen of 100 wanted among 5 s: 4 % over the load, 40 % in the burst.
		const load = [...span(25, 100), ...span(5, 60, 0, 40, 2500), ...span(20, 100, 0, 0, 3000)];
		const { share, burst, disturbed } = disturbanceOf(load, CALM_LIMITS)!;
		expect(share).to.be.closeTo(0.04, 1e-9);
		expect(burst).to.be.closeTo(0.4, 1e-9);
		expect(disturbed).to.equal(true);
	});

	it('finds the worst half second wherever it lies, and takes a short load as it is', () => {
		for (const at of [0, 7, 15]) {
			const load = span(20, 100).map((item, i) => (i >= at && i < at + 5 ? { ...item, stolenMs: 100 } : item));
			expect(worstBurst(load), `from sample ${at}`).to.be.closeTo(0.5, 1e-9);
		}
		expect(worstBurst([sample(100, 50, 0, 50)])).to.equal(0.5);
		expect(worstBurst([])).to.equal(null);
	});

	it('is unknown where the machine does not tell', () => {
		expect(
			disturbanceOf(
				span(9, 50).map((item) => ({ ...item, stolenMs: null, foreignMs: null })),
				CALM_LIMITS
			)
		).to.equal(null);
	});

	it('is judged from the navigation until the page had settled', () => {
		const around = [...span(10, 100, 90), ...span(10, 100, 0, 0, 1000), ...span(10, 100, 90, 0, 2000)];
		const during = samplesWithin(around, 1000, 2000);
		expect(during.map(({ atMs }) => atMs)).to.deep.equal(span(10, 0, 0, 0, 1000).map(({ atMs }) => atMs));
		expect(disturbanceOf(during, CALM_LIMITS)!.disturbed).to.equal(false);
	});
});

describe('the track of a load', () => {
	it('is kept in step, in whole ms from the navigation on, with what is not told left out', () => {
		const samples = [sample(1100.4, 50, 10), { ...sample(1200.4, 60, 0, 20), pressureMs: null }];
		expect(trackOf(samples, 1000)).to.deep.equal({
			endsMs: [100, 200],
			busyMs: [50, 60],
			stolenMs: [0, 20],
			foreignMs: [10, 0],
			pressureMs: null
		});
	});

	it('shares stolen and foreign time of what was wanted; nothing wanted is nothing known', () => {
		const existing = sample(100, 80, 30, 20);
		expect(busyShares([existing, { ...existing, stopped: true }])).to.deep.equal({
			stolen: 0.2,
			foreign: 0.3,
			samples: 2,
			stopped: 1
		});
		expect(busyShares([])).to.equal(null);
		expect(busyShares([sample(100, 0)])).to.equal(null);
	});
});
