import { expect } from 'chai';
import Sheet from '$lib/parts/Sheet.svelte';
import { fetchOpened as fetchOfLoad, isFetched } from '../../src/routes/loads/[id]/lazyParts';
import { PART_NAMES as LOAD_PARTS } from '../../src/routes/loads/[id]/partNames';
import type { LoadPartId } from '../../src/lib/server/rooms/loads/partsView';
import { fetchOpened as fetchOfTrial } from '../../src/routes/trials/[id]/lazyParts';
import { PART_NAMES as TRIAL_PARTS } from '../../src/routes/trials/[id]/partNames';
import { percentOf } from '../../src/routes/trials/[id]/percent';
import { show as render, type Shown } from '../support/svelte/show';

const show = (component: unknown, props: object): Promise<Shown> => render(component as never, props as never);

describe('parts of a sheet', () => {
	it('come with the first screen where the address opens them, and else when they are opened', async () => {
		expect(Object.keys(await fetchOfLoad(['weight', 'facts']))).to.have.members(['weight', 'facts']);
		expect(await fetchOfLoad([''])).to.deep.equal({});
		expect(Object.keys(await fetchOfTrial(['why']))).to.have.members(['arms', 'method', 'why']);
	});

	it('are none that an address makes up', async () => {
		expect(await fetchOfLoad(['toString', 'nothing', '__proto__'])).to.deep.equal({});
		expect(Object.keys(await fetchOfTrial(['constructor']))).to.have.members(['arms', 'method']);
	});

	it('each have a name and a component', async () => {
		const ids = Object.keys(LOAD_PARTS) as LoadPartId[];
		const printed = ids.filter((id) => !isFetched(id));
		expect(printed).to.have.members(['figures', 'circumstances']);
		const fetched = await fetchOfLoad(ids);
		expect(Object.keys(fetched)).to.have.members(ids.filter(isFetched));
		const ofTrial = await fetchOfTrial(Object.keys(TRIAL_PARTS));
		expect(Object.keys(ofTrial)).to.have.members(Object.keys(TRIAL_PARTS));
		for (const component of [...Object.values(fetched), ...Object.values(ofTrial)])
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
			['Did anything break?', '?open=broke#broke']
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
