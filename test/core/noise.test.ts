import { expect } from 'chai';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import { conditionsFingerprint } from '$core/load/conditions/sameConditions';
import { noFigures } from '$core/metrics/catalogue';
import { judge } from '$core/trial/judge/judge';
import { ASSUMED_SPREAD, noiseFloorOf, visibleShare } from '$core/trial/noise/noise';
import type { TrialDesign, TrialLoad } from '$core/trial/types';

const [PHONE, DESKTOP] = BUILT_IN_CONDITIONS as [(typeof BUILT_IN_CONDITIONS)[0], (typeof BUILT_IN_CONDITIONS)[0]];
const design: TrialDesign = {
	kind: 'same-page',
	arms: [1, 2].map((id) => ({ id, name: `Run ${id}`, url: 'http://a.test/', baseline: id === 1, reference: false })),
	conditions: [DESKTOP],
	rounds: 8,
	warmups: 0,
	seed: 1,
	primary: ['lcp'],
	looks: [{ rounds: 8, spent: 0.04, by: 'plan' }]
};
/** Differences of -40, -30, ... 30 ms around a page of 2 s. */
const loads = Array.from({ length: 8 }, (_, i) => i + 1).flatMap((round) =>
	[1, 2].map((armId): TrialLoad => ({
		id: round * 2 + armId,
		armId,
		conditionId: 'desktop',
		stage: 0,
		round,
		warmup: false,
		status: 'ok',
		disturbed: false,
		excluded: null,
		figures: { ...noFigures(), lcp: 2000 + (armId - 1) * (round * 10 - 50) }
	}))
);
const trial = { design, loads, judgement: judge(design, loads) };

describe('noise floor', () => {
	it('holds for conditions that measure alike, whatever they are called, and for no others', () => {
		const renamed = { ...DESKTOP, id: 'office', name: 'Office', summary: 'Another name' };
		expect(conditionsFingerprint(renamed)).to.equal(conditionsFingerprint(DESKTOP));
		expect(noiseFloorOf(trial, renamed)).to.not.equal(null);
		for (const edited of [
			{ ...DESKTOP, capMs: 9000 },
			{ ...DESKTOP, network: { ...DESKTOP.network, roundTripMs: 31 } },
			{ ...DESKTOP, block: ['*ads*'] },
			PHONE
		])
			expect(noiseFloorOf(trial, { ...edited, id: 'desktop' })).to.equal(null);
	});

	it('is the far end of the interval, and the spread of the differences as a share', () => {
		const floor = noiseFloorOf(trial, DESKTOP)!;
		// Eight differences -40 .. 30 in steps of 10: Walsh averages leave -30 to 20 at the 95 % level (critical value 3).
		expect(floor.floors.lcp).to.equal(30);
		// Quartiles -22.5 and 12.5 over 1.349, of 2,000 ms.
		expect(floor.shares.lcp).to.be.closeTo(35 / 1.349 / 2000, 1e-4);
	});

	it('says what planned rounds can see: more with more rounds, less with more to decide', () => {
		expect(visibleShare(24, ASSUMED_SPREAD, 0.04, 1)).to.be.below(visibleShare(12, ASSUMED_SPREAD, 0.04, 1));
		expect(visibleShare(12, ASSUMED_SPREAD, 0.04, 10)).to.be.above(visibleShare(12, ASSUMED_SPREAD, 0.04, 1));
		// (2.0537 + 0.8416) * 0.14142 / sqrt(12 * 0.95493) = 0.12096.
		expect(visibleShare(12, ASSUMED_SPREAD, 0.04, 1)).to.be.closeTo(0.12096, 0.0001);
	});
});
