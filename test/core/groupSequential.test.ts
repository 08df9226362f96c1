import { expect } from 'chai';
import {
	crossingChance,
	obrienFlemingConstant,
	pocockConstant,
	pocockLevel
} from '../support/reference/groupSequential';
import { normalQuantile } from '$core/stats/normal';

describe('group sequential tests', () => {
	// Jennison and Turnbull, "Group Sequential Methods", 2000, table 2.1 (alpha 0.05); figures from memory.
	it('has Pocock’s constants of the table', () => {
		const table: [number, number][] = [
			[1, 1.96],
			[2, 2.178],
			[3, 2.289],
			[4, 2.361],
			[5, 2.413],
			[6, 2.453],
			[8, 2.512],
			[10, 2.555]
		];
		for (const [looks, constant] of table) expect(pocockConstant(looks), `K = ${looks}`).to.be.closeTo(constant, 0.001);
	});

	// The same, table 2.3: O'Brien and Fleming's constants for alpha 0.05.
	it('has O’Brien and Fleming’s constants of the table', () => {
		const table: [number, number][] = [
			[2, 1.977],
			[3, 2.004],
			[4, 2.024],
			[5, 2.04]
		];
		for (const [looks, constant] of table)
			expect(obrienFlemingConstant(looks), `K = ${looks}`).to.be.closeTo(constant, 0.001);
	});

	it('reckons crossing chances: one look is the plain level, two independent checks by hand', () => {
		expect(crossingChance([normalQuantile(0.975)])).to.be.closeTo(0.05, 1e-6);
		// Two looks at 1.96 each: 0.083 (Armitage, McPherson and Rowe 1969).
		expect(crossingChance([1.96, 1.96])).to.be.closeTo(0.083, 0.0005);
		expect(crossingChance([1.96, 1.96, 1.96, 1.96, 1.96])).to.be.closeTo(0.142, 0.0005);
		expect(() => pocockConstant(0)).to.throw(RangeError);
	});

	it('gives five looks a nominal level of 1.58 %', () => {
		expect(pocockLevel(5)).to.be.closeTo(0.0158, 0.0001);
	});
});
