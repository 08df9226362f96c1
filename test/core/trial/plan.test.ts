import { expect } from 'chai';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import { planLoads } from '$core/trial/design/plan';
import { arm, design } from '../../support/trials';

describe('plan', () => {
	const wide = design({
		arms: [1, 2, 3, 4].map((id) => arm(id, `Arm ${id}`)),
		conditions: [...BUILT_IN_CONDITIONS],
		rounds: 6,
		warmups: 2
	});

	it('loads every arm once per round and conditions, warm-ups first', () => {
		const plan = planLoads(wide);
		expect(plan).to.have.length(4 * 2 * (6 + 2));
		expect(plan.slice(0, 16).every((load) => load.warmup)).to.equal(true);
		for (let round = 1; round <= 6; round++) {
			const here = plan.filter((load) => !load.warmup && load.round === round);
			expect(new Set(here.map((load) => `${load.armId}${load.conditionId}`)).size).to.equal(8);
			const at = here.map((load) => plan.indexOf(load));
			expect(Math.max(...at) - Math.min(...at), 'a round is not torn apart').to.equal(7);
		}
	});

	it('follows from the seed alone, and another seed gives another order', () => {
		expect(planLoads(wide)).to.deep.equal(planLoads(wide));
		expect(planLoads({ ...wide, seed: 8 })).not.to.deep.equal(planLoads(wide));
	});

	it('runs stages one after another, the reference page in each', () => {
		const staged = design({
			kind: 'before-after',
			arms: [arm(1, 'Before'), arm(2, 'After'), arm(3, 'Reference', { reference: true })],
			rounds: 3
		});
		const plan = planLoads(staged);
		expect(plan.map((load) => load.stage)).to.deep.equal([...Array(6).fill(0), ...Array(6).fill(1)]);
		expect(plan.filter((load) => load.armId === 3)).to.have.length(6);
		expect(plan.filter((load) => load.stage === 0 && load.armId === 2)).to.have.length(0);
	});
});
