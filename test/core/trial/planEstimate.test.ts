import { expect } from 'chai';
import { estimatePlan, lateLoadsOf, type Plan } from '$core/trial/design/planEstimate';
import { planLoads } from '$core/trial/design/plan';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import { arm, design } from '../../support/trials';

const plan = (extra: Partial<Plan> = {}): Plan => ({
	kind: 'side-by-side',
	aim: 'baseline',
	arms: 3,
	conditions: 2,
	primary: 5,
	adaptive: false,
	rounds: 12,
	warmups: 1,
	hasReference: false,
	...extra
});

describe('what a planned trial costs', () => {
	it('counts rounds, arms, conditions and warm-ups', () => {
		// 3 arms x 2 conditions x (12 rounds + 1 warm-up)
		expect(estimatePlan(plan())).to.deep.equal({ rounds: 12, loads: 78, pairCount: 1, tests: 20 });
	});

	it('counts the most of a trial that may stop early', () => {
		expect(estimatePlan(plan({ adaptive: true })).rounds).to.equal(24);
		expect(lateLoadsOf({ kind: 'side-by-side', arms: 3, conditions: 2 })).to.equal(12);
		expect(lateLoadsOf({ kind: 'same-page', arms: 1, conditions: 2 })).to.equal(0);
	});

	it('loads a page twice against itself, and the reference page with every stage', () => {
		expect(estimatePlan(plan({ kind: 'same-page', arms: 1, conditions: 1 })).loads).to.equal(26);
		const stages = plan({ kind: 'before-after', arms: 2, conditions: 1, hasReference: true, adaptive: true });
		expect(estimatePlan(stages)).to.include({ rounds: 12, loads: 52 });
	});

	it('agrees with the plan that is then laid out', () => {
		const arms = [arm(1, 'A'), arm(2, 'B'), arm(3, 'C')];
		const conditions = [...BUILT_IN_CONDITIONS].slice(0, 2);
		const planned = planLoads(design({ arms, conditions, rounds: 12, warmups: 1 }));
		expect(estimatePlan(plan()).loads).to.equal(planned.filter(({ settle }) => !settle).length);
	});

	it('counts the pairs of candidates that share the level: the tests of one of them', () => {
		expect(estimatePlan(plan({ aim: 'best', arms: 5 }))).to.include({ pairCount: 10, tests: 10 });
		expect(estimatePlan(plan({ arms: 5 }))).to.include({ pairCount: 1, tests: 40 });
	});
});
