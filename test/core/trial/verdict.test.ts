import { expect } from 'chai';
import { type MetricId } from '$core/metrics/catalogue';
import { normalFrom, seededRandom } from '$core/stats/random';
import {
	chanceToDecide,
	decide,
	fewestRounds,
	MOST_ROUNDS,
	roundsToDecide,
	visibleShift
} from '$core/trial/judge/verdict';

describe('verdict rule', () => {
	const at = (low: number | null, high: number | null, called = true, metric: MetricId = 'lcp') =>
		decide({ metric, shift: { estimate: ((low ?? 0) + (high ?? 0)) / 2, low, high }, margin: 100, called });

	it('gives each of its verdicts', () => {
		expect(at(101, 300)).to.equal('worse');
		expect(at(-300, -101)).to.equal('better');
		expect(at(101, 300, true, 'score')).to.equal('better');
		expect(at(-100, 100)).to.equal('same');
		expect(at(10, 90), 'clear but small').to.equal('same');
		expect(at(60, 300)).to.equal('slight');
		expect(at(-300, -100)).to.equal('slight');
		expect(at(-50, 300)).to.equal('undecided');
		expect(at(101, 300, false), 'not called jointly').to.equal('undecided');
		expect(at(null, null)).to.equal('undecided');
	});

	const open = (estimate: number, spread: number, rounds = 10) => ({
		rounds,
		estimate,
		margin: 100,
		spread,
		testAlpha: 0.02,
		intervalAlpha: 0.015
	});

	it('asks for rounds by the chance of a decision, and always for a number', () => {
		expect(roundsToDecide(open(300, 60))).to.equal(11);
		expect(roundsToDecide(open(0, 60))).to.be.within(11, 20);
		const [calm, noisy] = [roundsToDecide(open(150, 200)), roundsToDecide(open(150, 400))];
		expect(noisy).to.be.above(calm);
		// An estimate at the margin is told a number too: never "no sensible number".
		expect(roundsToDecide(open(100, 120))).to.be.within(11, MOST_ROUNDS);
		expect(roundsToDecide(open(50, 5000))).to.equal(MOST_ROUNDS + 1);
		expect(chanceToDecide(open(150, 200), calm)).to.be.at.least(0.8);
		expect(chanceToDecide(open(150, 200), calm - 1)).to.be.below(0.8);
	});

	it('never asks for fewer rounds than can decide at all, however alike the first ones were', () => {
		// An exact 98.5 % interval needs 2 / 2^n <= 0.015: eight rounds; a test at 0.2 % needs 2^(n-1) >= 500: ten.
		expect(roundsToDecide(open(0, 0, 1))).to.equal(8);
		expect(roundsToDecide({ ...open(400, 0, 1), testAlpha: 0.002 })).to.equal(10);
		expect(chanceToDecide(open(0, 0, 1), 7)).to.equal(0);
	});

	it('reckons that chance as a simulation of the rounds to come does', () => {
		const random = seededRandom(31);
		const [seen, all] = [10, 24];
		for (const [estimate, spread] of [
			[120, 150],
			[0, 150],
			[60, 260]
		] as const) {
			let decided = 0;
			const efficient = 3 / Math.PI;
			for (let i = 0; i < 6000; i++) {
				// The true shift, given what was seen; then the estimate after all rounds.
				const truth = estimate + (spread / Math.sqrt(seen * efficient)) * normalFrom(random);
				const later = truth + (spread / Math.sqrt((all - seen) * efficient)) * normalFrom(random);
				const last = (seen * estimate + (all - seen) * later) / all;
				// Two-sided 2 % and 1.5 %: 2.3263 and 2.4324 (table of the normal distribution).
				const error = spread / Math.sqrt(all * efficient);
				if (Math.abs(last) > 2.4324 * error || Math.abs(last) < 100 - 2.4324 * error) decided++;
			}
			expect(chanceToDecide(open(estimate, spread), all), `${estimate} ± ${spread}`).to.be.closeTo(
				decided / 6000,
				0.02
			);
		}
	});

	it('says what rounds can see, and from how many on they can say anything', () => {
		// (1.95996 + 0.84162) * 100 / sqrt(12 * 0.95493) = 82.76.
		expect(visibleShift(12, 100, 0.05)).to.be.closeTo(82.76, 0.01);
		// One flip in 2^(n-1): 1/16 is more than 4 %, 1/32 is less.
		expect(fewestRounds(0.04)).to.equal(6);
	});
});
