import { expect } from 'chai';
import Sheet from '$lib/parts/Sheet.svelte';
import { fetchOpened as fetchOfLoad } from '../../src/routes/loads/[id]/partComponents';
import { PART_NAMES as LOAD_PARTS } from '../../src/routes/loads/[id]/partNames';
import { fetchOpened as fetchOfTrial } from '../../src/routes/trials/[id]/partComponents';
import { PART_NAMES as TRIAL_PARTS } from '../../src/routes/trials/[id]/partNames';
import { percentOf } from '../../src/routes/trials/[id]/percent';
import { show as render, type Shown } from '../support/svelte/show';

const show = (component: unknown, props: object): Promise<Shown> => render(component as never, props as never);

describe('parts of a sheet', () => {
	it('bring their component with their data, and no other', async () => {
		expect(Object.keys(await fetchOfLoad({ weight: {}, frames: {} }))).to.have.members(['weight', 'frames']);
		expect(await fetchOfLoad({})).to.deep.equal({});
		expect(await fetchOfTrial({})).to.deep.equal({});
	});

	it('each have a name and a component', async () => {
		const all = (names: object) => Object.fromEntries(Object.keys(names).map((id) => [id, {}]));
		const ofLoad = await fetchOfLoad(all(LOAD_PARTS) as never);
		expect(Object.keys(ofLoad)).to.have.members(Object.keys(LOAD_PARTS));
		const ofTrial = await fetchOfTrial(all(TRIAL_PARTS) as never);
		expect(Object.keys(ofTrial)).to.have.members(Object.keys(TRIAL_PARTS));
		for (const component of [...Object.values(ofLoad), ...Object.values(ofTrial)])
			expect(component).to.be.a('function');
	});

	it('are listed in the margin as links that work without a script', async () => {
		const empty = () => undefined;
		const shown = await show(Sheet, {
			parts: [
				{ id: 'why', name: 'Why' },
				{ id: 'broke', name: 'Did anything break?', state: 'nothing' }
			],
			first: empty,
			shows: null,
			children: empty
		});
		const links = shown.the('nav').all('a');
		expect(links.map((link) => [link.text, link.attribute('href')])).to.deep.equal([
			['Why', '?open=why#why'],
			['Did anything break?', '?open=broke#broke'],
			['Open all parts', '?open=why,broke']
		]);
		expect(shown.the('nav').texts('span')).to.deep.equal(['nothing']);
	});
});

describe('shares of the error level', () => {
	it('have no more digits than they need', () => {
		expect([0.005, 0.05, 0.95, 0.0004, 0.1234].map(percentOf)).to.deep.equal([
			'0.5 %',
			'5 %',
			'95 %',
			'0.04 %',
			'12.3 %'
		]);
	});
});
