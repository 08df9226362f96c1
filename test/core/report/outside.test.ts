import { expect } from 'chai';
import type { OutsideFigure } from '$core/report/document';
import { compareOutside, type OwnFigures } from '$core/report/outside';

const told = (candidate: Partial<OutsideFigure> = {}): OutsideFigure => ({
	program: 'Another program',
	metric: 'lcp',
	value: 2.6,
	unit: 's',
	device: 'phone',
	place: '',
	day: '',
	scope: 'page',
	from: 'lab',
	loads: 5,
	definition: null,
	...candidate
});
const own: OwnFigures = {
	device: 'phone',
	scope: 'page',
	from: 'lab',
	values: [1800, 2000, 2200, 2100, 1900],
	defined: null
};

describe('figures from elsewhere', () => {
	it('are brought to the metric’s unit and set beside the own middle figure', () => {
		const found = compareOutside(told(), own);
		expect(found.value).to.equal(2600);
		expect(found.own).to.deep.equal({ median: 2000, low: 1800, high: 2200, loads: 5 });
		expect(found.difference).to.equal(600);
		expect(found.position).to.equal(1);
		expect(found.isWithinSpread).to.equal(false);
		expect(found.reasons).to.deep.equal([]);
	});

	it('within the spread of the own loads need no explanation, and say where in it they lie', () => {
		const found = compareOutside(told({ value: 2150, unit: 'ms' }), own);
		expect(found).to.deep.include({ isWithinSpread: true, position: 0.8 });
	});

	for (const [what, known, implausible] of [
		['3.1 ms for the largest paint', { value: 3.1, unit: 'ms' }, 'too-small'],
		['a largest paint of 20 minutes', { value: 1200, unit: 's' }, 'too-large'],
		['a largest paint in kB', { unit: 'kB' }, 'wrong-unit'],
		['bytes in seconds', { metric: 'wire' }, 'wrong-unit'],
		['a score of 140', { metric: 'score', value: 140, unit: 'points' }, 'too-large'],
		['less than nothing', { value: -1 }, 'too-small'],
		['44 requests', { metric: 'requests', value: 44, unit: 'count' }, null],
		['1.2 MB', { metric: 'wire', value: 1.2, unit: 'MB' }, null],
		['a blocking time of 3.1 ms', { metric: 'tbt', value: 3.1, unit: 'ms' }, null]
	] as const)
		it(`${implausible ? 'do not take' : 'take'} ${what}`, () => {
			const found = compareOutside(told(known), own);
			expect(found.implausible).to.equal(implausible);
			if (implausible) expect(found.difference).to.equal(null);
		});

	it('of a score are never subtracted: two recipes are two things', () => {
		const found = compareOutside(told({ metric: 'score', value: 73, unit: 'points' }), { ...own, values: [60, 62] });
		expect(found.reasons).to.deep.equal(['recipe']);
		expect(found.difference).to.equal(null);
	});

	it('name what makes them another thing, the weightiest first', () => {
		const found = compareOutside(
			told({ from: 'field', device: 'desktop', scope: 'origin', loads: 1, place: 'Port Amity' }),
			own
		);
		expect(found.reasons).to.deep.equal(['lab-or-field', 'device', 'scope', 'one-load', 'place']);
	});

	it('by another definition are set beside the same loads counted like that', () => {
		const loads = { ...own, defined: [2400, 2500, 2600, 2550, 2450] };
		const found = compareOutside(told({ definition: 'onload', value: 2.9 }), loads);
		expect(found.defined).to.deep.equal({ median: 2500, low: 2400, high: 2600, loads: 5 });
		expect(found).to.deep.include({ difference: 900, byDefinition: 500, position: 1, isWithinSpread: false });
		const explained = compareOutside(told({ definition: 'onload', value: 2.55 }), loads);
		expect(explained).to.deep.include({ isWithinSpread: true, position: 0.6 });
	});

	it('of a definition that was not measured leave the difference whole', () => {
		for (const defined of [null, []])
			expect(compareOutside(told({ definition: 'onload' }), { ...own, defined })).to.deep.include({
				difference: 600,
				byDefinition: null,
				defined: null
			});
		const same = compareOutside(told({ definition: 'lcp' }), { ...own, defined: own.values });
		expect(same.byDefinition).to.equal(null);
	});

	it('without own figures stand alone', () => {
		expect(compareOutside(told(), null)).to.deep.include({ own: null, difference: null, position: null });
	});
});
