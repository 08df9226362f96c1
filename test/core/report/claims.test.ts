import { expect } from 'chai';
import fc from 'fast-check';
import { checkClaim } from '$core/report/claims';

describe('claims', () => {
	// 3.9 s to 1.5 s: 2.4 less. 2.4 / 3.9 = 61.5 % of before, 2.4 / 1.5 = 160 % of after, 3.9 / 1.5 = 260 %.
	const TIMES = { before: 3.9, after: 1.5 };
	for (const [percent, agrees, base] of [
		[62, true, null],
		[-61.5, true, null],
		[160, false, 'after'],
		[260, false, 'ratio'],
		[90, false, null],
		[null, null, null]
	] as const)
		it(`of ${percent} % for 3.9 s that became 1.5 s ${agrees === null ? 'say only the change' : agrees ? 'agree' : `do not agree (${base ?? 'nothing here'})`}`, () => {
			const found = checkClaim({ ...TIMES, percent });
			expect(found).to.deep.include({ agrees, base });
			expect(found.change).to.be.closeTo(-0.615385, 1e-6);
		});

	// 50 a month against 10: “five times cheaper” is 80 % less.
	it('of prices are 80 % less where one is a fifth of the other', () => {
		expect(checkClaim({ before: 50, after: 10, percent: 500 })).to.deep.include({ agrees: false, base: 'ratio' });
		expect(checkClaim({ before: 50, after: 10, percent: 80 }).agrees).to.equal(true);
	});

	it('of a figure that was zero before are refused', () => {
		expect(() => checkClaim({ before: 0, after: 3, percent: 10 })).to.throw(RangeError);
	});

	it('agree with the share that follows from their figures, whatever these are', () => {
		const figure = fc.double({ min: 0.01, max: 1e6, noNaN: true });
		fc.assert(
			fc.property(figure, figure, (before, after) => {
				const percent = ((after - before) / before) * 100;
				expect(checkClaim({ before, after, percent }).agrees).to.equal(true);
			})
		);
	});
});
