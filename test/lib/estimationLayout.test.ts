import { expect } from 'chai';
import { nameLines, roundOffset, shiftDomain, valueDomain } from '../../src/lib/charts/estimationLayout';
import { armColour } from '../../src/lib/charts/armColour';
import { ownerColours } from '../../src/lib/charts/ownerColour';

const shift = (low: number | null, high: number | null, estimate = 0) => ({ estimate, low, high, relative: null });

describe('layout of the estimation plot', () => {
	it('shows all dots with room around them, and nothing below zero', () => {
		// 8 % of a span of 100 is 8.
		expect(valueDomain([100, 200])).to.deep.equal([92, 208]);
		expect(valueDomain([1, 101])).to.deep.equal([0, 109]);
		expect(valueDomain([50, 50])).to.deep.equal([46, 54]);
		expect(valueDomain([0, 0])).to.deep.equal([0, 0.08]);
	});

	it('shows every interval, the band whole, and zero', () => {
		expect(shiftDomain([{ shift: shift(-300, -100), margin: 100 }])).to.deep.equal([-300, 130]);
		expect(shiftDomain([{ shift: shift(200, 400), margin: 10 }])).to.deep.equal([-13, 400]);
		expect(shiftDomain([{ shift: shift(null, null, 90), margin: 10 }])).to.deep.equal([-13, 90]);
		expect(shiftDomain([{ shift: null, margin: 10 }])).to.deep.equal([-1, 1]);
	});

	it('spreads dots by their round about the middle of their arm', () => {
		// Between arms of 60 px: 55 % of it is 33 px, from -16.5 to 16.5.
		expect([1, 2, 3].map((round) => Number(roundOffset(round, 3, 60).toFixed(6)))).to.deep.equal([-16.5, 0, 16.5]);
		expect(roundOffset(3, 3, 1000)).to.equal(23);
		expect(roundOffset(1, 1, 60)).to.equal(0);
	});

	it('writes names in at most two lines, and shows what it cut', () => {
		expect(nameLines('With chat', 12)).to.deep.equal(['With chat']);
		expect(nameLines('With Parlour Bell', 12)).to.deep.equal(['With Parlour', 'Bell']);
		expect(nameLines('With Parlour Bell switched on', 12)).to.deep.equal(['With Parlour', 'Bell switched…']);
		expect(nameLines('Incomprehensibilities', 10)).to.deep.equal(['Incomprehen…']);
	});
});

describe('colours', () => {
	const arms = [
		{ id: 4, baseline: false },
		{ id: 9, baseline: true },
		...Array.from({ length: 7 }, (_, i) => ({ id: 20 + i, baseline: false }))
	];

	it('of arms follow their place; the baseline is ink, and the eighth begins anew', () => {
		expect([9, 4, 20, 26].map((id) => armColour(arms, id))).to.deep.equal([
			'var(--ink)',
			'var(--arm-1)',
			'var(--arm-2)',
			'var(--arm-1)'
		]);
	});

	it('of owners tell the site, its CDN, the browser and third parties apart', () => {
		const colours = ownerColours([
			{ id: 'own.test', kind: 'own' },
			{ id: 'bell.test', kind: 'third-party' },
			{ id: 'row.test', kind: 'third-party' }
		]);
		expect([
			colours('own.test', 'own'),
			colours('cdn', 'own-cdn'),
			colours('browser', 'own'),
			colours('row.test', 'third-party')
		]).to.deep.equal(['var(--ink)', 'var(--muted)', 'var(--rule-strong)', 'var(--arm-2)']);
	});
});
