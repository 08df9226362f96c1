import { expect } from 'chai';
import { histogramOf } from '$core/field/histogram';
import { outcomeByLcp, wilson } from '$core/field/outcome';

describe('goals by speed', () => {
	it('are counted by the bands of LCP, each with its interval', () => {
		const all = histogramOf('lcp', [...Array(400).fill(1500), ...Array(200).fill(3000), ...Array(100).fill(6000)]);
		const reached = histogramOf('lcp', [...Array(40).fill(1500), ...Array(10).fill(3000), ...Array(2).fill(6000)]);
		const [good, middle, poor] = outcomeByLcp(all, reached);
		expect([good, middle, poor].map((band) => [band!.views, band!.reached])).to.deep.equal([
			[400, 40],
			[200, 10],
			[100, 2]
		]);
		expect(good!.rate).to.equal(0.1);
		expect(good!.low).to.be.below(0.1);
		expect(good!.high).to.be.above(0.1);
	});

	it('have no rate where nobody came', () => {
		expect(outcomeByLcp(new Map(), new Map()).map(({ rate }) => rate)).to.deep.equal([null, null, null]);
	});

	it('have Wilson’s interval', () => {
		// Newcombe 1998 (Statistics in Medicine 17, table I): 81 of 263, 15 of 148, 0 of 20, 1 of 29; from memory.
		const table: [k: number, n: number, low: number, high: number][] = [
			[81, 263, 0.2553, 0.3662],
			[15, 148, 0.0624, 0.1605],
			[0, 20, 0, 0.1611],
			[1, 29, 0.0061, 0.1718]
		];
		for (const [k, n, low, high] of table) {
			const [from, to] = wilson(k, n);
			expect(from, `${k}/${n}`).to.be.closeTo(low, 6e-5);
			expect(to, `${k}/${n}`).to.be.closeTo(high, 6e-5);
		}
		expect(wilson(0, 0)).to.deep.equal([0, 1]);
	});
});
