import { expect } from 'chai';
import { exclusiveClashes, monthlyCostOf, setupDifferences } from '$core/trial/design/setup';
import { component, setup } from '../../support/arms';

describe('setups', () => {
	it('differ component by component, settings key by key', () => {
		const before = setup([
			component('Larder', { version: '3.1', settings: '{"minify":true,"ttl":600}' }),
			component('Old')
		]);
		const after = setup([
			component('larder', { version: '3.2', settings: '{"minify":true,"ttl":60,"delay":{"js":1}}' }),
			component('New')
		]);
		expect(setupDifferences(before, after)).to.deep.equal([
			{
				component: 'larder',
				kind: 'plugin',
				what: 'changed',
				fields: [
					{ name: 'version', before: '3.1', after: '3.2' },
					{ name: 'settings: delay.js', before: 'not set', after: '1' },
					{ name: 'settings: ttl', before: '600', after: '60' }
				]
			},
			{ component: 'New', kind: 'plugin', what: 'added', fields: [] },
			{ component: 'Old', kind: 'plugin', what: 'gone', fields: [] }
		]);
	});

	it('clash where two do what one should', () => {
		expect(
			exclusiveClashes(
				setup([component('Larder', { jobs: ['page cache'] }), component('Pantry', { jobs: ['page cache'] })])
			)[0]
		).to.match(/^Larder and Pantry both do the page cache/);
		expect(exclusiveClashes(setup([component('Larder', { jobs: ['page cache'] })]))).to.deep.equal([]);
	});

	it('cost what is known', () => {
		expect(
			monthlyCostOf(setup([component('A', { monthlyCost: 9 }), component('B', { monthlyCost: 5.5 }), component('C')]))
		).to.equal(14.5);
		expect(monthlyCostOf(setup([component('A')]))).to.equal(null);
	});
});
