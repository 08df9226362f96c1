import { expect } from 'chai';
import * as v from 'valibot';
import { ClientInput, newClient } from '$core/clients/client';
import { archiveClient, changeClient, deleteClient, createClient } from '../../src/lib/server/rooms/clients/commands';
import { goesWithClient } from '../../src/lib/server/rooms/clients/queries/changes';
import { clientNames, listClients } from '../../src/lib/server/rooms/clients/queries/clients';
import { existingClient } from '../../src/lib/server/rooms/clients/clients';
import { parsePeople, peopleLines } from '../../src/lib/server/rooms/clients/form';
import {
	changeSite,
	deleteSite,
	existingSite,
	insertSite,
	otherClientsOf,
	previewAccessOf,
	sitesOf
} from '../../src/lib/server/rooms/clients/queries/sites';
import { publicSite } from '../../src/lib/server/rooms/clients/sites';
import { clientListView } from '../../src/lib/server/rooms/clients/view';
import {
	deleteState,
	existingState,
	saveState,
	visitorStates
} from '../../src/lib/server/rooms/clients/queries/visitorStates';
import { pastePages } from '../../src/lib/server/rooms/pages/commands';
import { createTrial } from '../../src/lib/server/rooms/trials/commands';
import { trialAnswer } from '../../src/lib/server/rooms/trials/answer';
import { findTrial } from '../../src/lib/server/rooms/trials/trial';
import { clientWithSite, siteInput } from '../support/clients';
import { refusal, trialInput, useQueue } from '../support/queue';

const SIGNED_IN = {
	name: 'Signed in',
	url: null,
	steps: [{ click: '#in' }],
	cookies: [{ name: 'member', value: 'secret' }]
};

describe('clients', () => {
	const q = useQueue();
	const client = (more: Partial<v.InferInput<typeof ClientInput>> = {}) =>
		v.parse(ClientInput, { name: 'Skerry Line', ...more });

	it('are made, changed, and have names of their own', () => {
		const { db } = q.now;
		const id = createClient(db, client({ people: [{ name: 'Ines', role: 'bookings', email: 'ines@a.test' }] }));
		expect(existingClient(db, id)).to.deep.include({
			name: 'Skerry Line',
			language: 'en',
			currency: 'EUR',
			archivedAt: null
		});
		expect(refusal(() => createClient(db, client()))).to.equal('409 There is a client “Skerry Line” already.');
		changeClient(db, id, client({ language: 'es', currency: 'GBP', targets: [{ metric: 'lcp', value: 2000 }] }));
		expect(existingClient(db, id)).to.deep.include({ language: 'es', currency: 'GBP', people: [] });
		expect(refusal(() => changeClient(db, 99, client()))).to.equal('404 There is no client 99.');
	});

	it('that are archived leave the lists and lose nothing', () => {
		const { db } = q.now;
		const id = createClient(db, client());
		archiveClient(db, id, true);
		expect(clientNames(db)).to.deep.equal([]);
		expect(clientListView(db)).to.have.length(1);
		expect(clientListView(db)[0]).to.include({ isArchived: true });
		archiveClient(db, id, false);
		expect(clientNames(db)).to.deep.equal([{ id, name: 'Skerry Line' }]);
	});

	it('go with all that is theirs, which is counted first; not while a trial of theirs runs', () => {
		const { db } = q.now;
		const { clientId, siteId } = clientWithSite(db);
		pastePages(db, siteId, '/a\n/b');
		const trial = q.now.make({ clientId });
		expect(refusal(() => deleteClient(db, clientId))).to.match(/^409 A trial of this client is running/);
		db.prepare(`UPDATE trial SET status = 'done' WHERE id = ?`).run(trial);
		expect(goesWithClient(db, clientId)).to.deep.equal({ sites: 1, pages: 2, trials: 1, loads: 0 });
		deleteClient(db, clientId);
		for (const table of ['client', 'site', 'page', 'trial', 'arm'])
			expect(db.prepare(`SELECT count(*) FROM ${table}`).pluck().get(), table).to.equal(0);
	});

	it('give their trials targets, margins and what must be sent, unless the trial says otherwise', () => {
		const { db } = q.now;
		const clientId = createClient(
			db,
			client({
				targets: [
					{ metric: 'lcp', value: 2000 },
					{ metric: 'lcp', conditions: 'phone', value: 1800 }
				],
				margins: { tbt: { absolute: 80, relative: 0 } },
				mustSend: [{ name: 'Counting', pattern: '*count*' }]
			})
		);
		const usual = findTrial(db, createTrial(db, trialInput({ clientId })))!.design;
		expect(usual.targets).to.deep.equal({ lcp: 2000 });
		expect(usual.conditionTargets).to.deep.equal({ phone: { lcp: 1800 } });
		expect(usual.margins).to.deep.equal({ tbt: { absolute: 80, relative: 0 } });
		expect(usual.mustSend).to.deep.equal([{ name: 'Counting', pattern: '*count*' }]);
		const own = findTrial(db, createTrial(db, trialInput({ clientId, targets: { lcp: 900 }, mustSend: [] })))!.design;
		expect([own.targets, own.conditionTargets, own.mustSend]).to.deep.equal([{ lcp: 900 }, undefined, []]);
	});

	it('are refused in words, at the field', () => {
		const issue = (value: object) => v.safeParse(ClientInput, { name: 'A', ...value }).issues?.[0]?.message ?? '';
		expect(issue({ name: ' ' })).to.equal('Give the client a name.');
		expect(issue({ people: [{ name: 'A', email: 'nobody' }] })).to.equal('This is not an e-mail address.');
		expect(issue({ reportColour: 'green' })).to.match(/#1F6F54/);
		expect(issue({ targets: [{ metric: 'speed', value: 1 }] })).to.equal('There is no such metric.');
		expect(issue({ currency: 'GOLD' })).to.match(/^The currency is one of/);
	});

	it('have people as lines, there and back', () => {
		const lines = 'Ines Harrow, bookings, ines@skerry-line.test\nTam Brindle';
		expect(parsePeople(lines)).to.deep.equal([
			{ name: 'Ines Harrow', role: 'bookings', email: 'ines@skerry-line.test' },
			{ name: 'Tam Brindle', role: '', email: '' }
		]);
		expect(peopleLines(parsePeople(lines))).to.equal(lines);
	});
});

describe('sites of clients', () => {
	const q = useQueue();

	it('have a host that is theirs alone within the client, and may be another client’s too', () => {
		const { db } = q.now;
		const { clientId, siteId } = clientWithSite(db, 'shop.test');
		expect(refusal(() => insertSite(db, clientId, siteInput('shop.test')))).to.equal(
			'409 This client has a site at shop.test already: “shop.test”.'
		);
		const other = clientWithSite(db, 'shop.test', 'Another');
		expect(otherClientsOf(db, existingSite(db, siteId))).to.deep.equal(['Another']);
		expect(otherClientsOf(db, existingSite(db, other.siteId))).to.deep.equal(['Client']);
	});

	it('keep the access to their preview, which is not shown', () => {
		const { db } = q.now;
		const { siteId } = clientWithSite(db);
		changeSite(db, siteId, siteInput('own.test', { previewHost: 'preview.own.test', previewAccess: 'ines:secret' }));
		expect(existingSite(db, siteId).previewAccess).to.equal('ines:secret');
		expect(JSON.stringify(publicSite(existingSite(db, siteId)))).not.to.include('secret');
		expect(publicSite(existingSite(db, siteId)).hasPreviewAccess).to.equal(true);
	});

	it('give the access to their preview to loads of that host alone', () => {
		const { db } = q.now;
		const { siteId } = clientWithSite(db);
		changeSite(db, siteId, siteInput('own.test', { previewHost: 'preview.own.test', previewAccess: 'ines:se:cret' }));
		expect(previewAccessOf(db, 'https://preview.own.test/a')).to.deep.equal({ username: 'ines', password: 'se:cret' });
		expect(previewAccessOf(db, 'https://own.test/a')).to.equal(null);
		expect(previewAccessOf(db, 'no address')).to.equal(null);
	});

	it('give trials of their pages the place that is nearest to their visitors', () => {
		const { db } = q.now;
		const { clientId, siteId } = clientWithSite(db);
		changeSite(db, siteId, siteInput('own.test', { place: 'oceania' }));
		const placeOf = (urls: string[], client: number | null = clientId) => {
			const arms = urls.map((url, i) => ({ name: `V${i}`, url, baseline: i === 0 }));
			return findTrial(db, createTrial(db, trialInput({ arms, clientId: client })))!.design.conditions[0]!.place;
		};
		expect(placeOf(['https://own.test/a', 'https://own.test/b'])).to.equal('oceania');
		expect(placeOf(['https://own.test/a', 'https://other.test/b'])).to.equal('near');
		expect(placeOf(['https://own.test/a', 'https://own.test/b'], null)).to.equal('near');
	});

	it('stand in the order of their roles, and go with their pages and states', () => {
		const { db } = q.now;
		const { clientId, siteId } = clientWithSite(db);
		insertSite(db, clientId, siteInput('b.test', { role: 'bench' }));
		insertSite(db, clientId, siteInput('c.test', { role: 'competitor' }));
		expect(sitesOf(db, clientId).map(({ role }) => role)).to.deep.equal(['own', 'competitor', 'bench']);
		pastePages(db, siteId, '/a');
		saveState(db, siteId, SIGNED_IN);
		deleteSite(db, siteId);
		expect(
			db.prepare('SELECT (SELECT count(*) FROM page) + (SELECT count(*) FROM visitor_state)').pluck().get()
		).to.equal(0);
	});

	it('have visitor states by name; a trial takes a copy and shows the name alone', async () => {
		const { db } = q.now;
		const { clientId, siteId } = clientWithSite(db);
		const id = saveState(db, siteId, SIGNED_IN);
		expect(saveState(db, siteId, { ...SIGNED_IN, url: 'https://own.test/in' })).to.equal(id);
		expect(visitorStates(db, clientId).map(({ site, state }) => [site, state.name, state.url])).to.deep.equal([
			['own.test', 'Signed in', 'https://own.test/in']
		]);
		const arms = [
			{ name: 'A', url: 'http://a.test', baseline: true },
			{ name: 'B', url: 'http://a.test/b', before: existingState(db, id).state }
		];
		const trial = findTrial(db, createTrial(db, trialInput({ arms, clientId })))!;
		deleteState(db, id);
		expect(trial.design.arms[1]!.before!.cookies).to.deep.equal([{ name: 'member', value: 'secret' }]);
		const answer = await trialAnswer(db, trial);
		expect(answer.arms.map(({ visitor }) => visitor)).to.deep.equal([null, 'Signed in']);
		expect(JSON.stringify(answer)).not.to.include('secret');
	});
});

describe('a list of clients', () => {
	const q = useQueue();
	it('counts own pages, those in the sample, and trials', () => {
		const { db } = q.now;
		const { clientId, siteId } = clientWithSite(db);
		pastePages(db, siteId, '/a\n/b\n/c');
		db.prepare('UPDATE page SET is_chosen = 1 WHERE url LIKE ?').run('%/a');
		q.now.make({ clientId });
		createClient(db, newClient('Empty'));
		expect(
			clientListView(db).map(({ name, pages, chosen, trials, running }) => [name, pages, chosen, trials, running])
		).to.deep.equal([
			['Client', 3, 1, 1, 1],
			['Empty', 0, 0, 0, 0]
		]);
		expect(listClients(db)).to.have.length(2);
	});
});
