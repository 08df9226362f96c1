import { expect } from 'chai';
import type { Block } from '$core/report/document';
import { ClientInput } from '$core/clients/client';
import { SiteInput } from '$core/clients/site';
import * as v from 'valibot';
import { changeClient, createClient } from '../../src/lib/server/rooms/clients/commands';
import { existingClient } from '../../src/lib/server/rooms/clients/clients';
import { insertSite } from '../../src/lib/server/rooms/clients/queries/sites';
import { restoreBinned } from '../../src/lib/server/desk/restore';
import { addMarker, deleteMarker } from '../../src/lib/server/rooms/field/markers';
import { fileOfMarker, markersOfSite } from '../../src/lib/server/rooms/field/queries/markers';
import { createReport, removeReport, saveDraft } from '../../src/lib/server/rooms/reports/commands';
import { existingReport } from '../../src/lib/server/rooms/reports/queries/reports';
import { componentsOfSite, putOnSite, saveComponent } from '../../src/lib/server/rooms/setups/queries/components';
import { deleteComponent } from '../../src/lib/server/rooms/setups/components';
import { listBin, putInBin } from '../../src/lib/server/base/storage/bin';
import { COMPONENTS } from '../../src/lib/server/demo/scenario';
import { refusal, useQueue } from '../support/queue';

describe('the bin', () => {
	const q = useQueue();
	const client = (name = 'Skerry Line') => createClient(q.now.db, v.parse(ClientInput, { name }));
	const site = (clientId: number) =>
		insertSite(q.now.db, clientId, v.parse(SiteInput, { host: 'skerry-line.test', name: 'Skerry Line', role: 'own' }));

	it('gives a release back with its file of settings', () => {
		const { db } = q.now;
		const own = site(client());
		const file = { name: 'larder.json', text: '{"a":1}' };
		const marker = { day: '2026-03-02', path: '/timetable', kind: 'release' as const, words: 'New timetable', file };
		const before = markersOfSite(db, own).length;
		const binned = deleteMarker(db, addMarker(db, own, marker));
		expect(markersOfSite(db, own)).to.have.length(before);
		expect(listBin(db)).to.deep.include.members([
			{ ...listBin(db)[0]!, id: binned, kind: 'marker', name: 'New timetable', clientName: 'Skerry Line' }
		]);
		restoreBinned(db, binned);
		const [back] = markersOfSite(db, own);
		expect(back).to.include({ day: '2026-03-02', path: '/timetable', words: 'New timetable' });
		expect(fileOfMarker(db, back!.id)).to.deep.equal(file);
		expect(listBin(db)).to.deep.equal([]);
		expect(refusal(() => restoreBinned(db, binned))).to.match(/^404 This is not in the bin/);
	});

	it('gives a component back to the sites that ran on it, and stays where its name is taken', () => {
		const { db } = q.now;
		const own = site(client());
		const larder = COMPONENTS.find(({ name }) => name === 'Larder')!;
		const id = saveComponent(db, null, larder);
		putOnSite(db, { siteId: own, componentId: id, version: '3.2', tier: 'paid' });
		const before = componentsOfSite(db, own).map(({ component: { id: _, ...rest }, ...use }) => ({ rest, ...use }));
		const binned = deleteComponent(db, id);
		expect(componentsOfSite(db, own)).to.deep.equal([]);
		const other = saveComponent(db, null, larder);
		expect(refusal(() => restoreBinned(db, binned))).to.match(/^409 There is a plugin “Larder” already/);
		expect(listBin(db).map((item) => item.id)).to.deep.equal([binned]);
		deleteComponent(db, other);
		restoreBinned(db, binned);
		expect(
			componentsOfSite(db, own).map(({ component: { id: _, ...rest }, ...use }) => ({ rest, ...use }))
		).to.deep.equal(before);
	});

	it('gives a block of a report back where it stood, once', () => {
		const { db } = q.now;
		const clientId = client();
		const begun = { trial: null, clientId, period: null, title: 'A report', language: null };
		const id = createReport(db, begun);
		const blocks = () => existingReport(db, id).draft.blocks.map((block) => block.id);
		const save = (keep: (block: string) => boolean) => {
			const { draft, revision } = existingReport(db, id);
			saveDraft(db, id, { ...draft, blocks: draft.blocks.filter((block) => keep(block.id)) }, revision);
		};
		const all = blocks();
		expect(all.length).to.be.greaterThan(2);
		save((block) => block !== all[1]);
		const [binned] = listBin(db);
		expect(binned).to.include({ kind: 'block', clientId });
		restoreBinned(db, binned!.id);
		expect([blocks(), listBin(db)]).to.deep.equal([all, []]);
		// Taken back by who deleted it, it is in the bin no more.
		const whole = existingReport(db, id).draft;
		save((block) => block !== all[0]);
		saveDraft(db, id, whole, existingReport(db, id).revision);
		expect(listBin(db)).to.deep.equal([]);
		// Another block may have its name by now: both are there in the end.
		save((block) => block !== all[0]);
		const { draft, revision } = existingReport(db, id);
		const other = { ...whole.blocks[0]!, id: all[0]!, heading: 'Something else' } as Block;
		saveDraft(db, id, { ...draft, blocks: [...draft.blocks, other] }, revision);
		expect(listBin(db)).to.have.length(1);
		restoreBinned(db, listBin(db)[0]!.id);
		const ids = blocks();
		expect([ids.length, new Set(ids).size]).to.deep.equal([all.length + 1, all.length + 1]);
		save((block) => block !== all[0]);
		const last = listBin(db)[0]!.id;
		removeReport(db, id);
		expect(refusal(() => restoreBinned(db, last))).to.match(/^404 There is no report/);
	});

	it('empties itself after thirty days', () => {
		const { db } = q.now;
		const put = (day: string) => putInBin(db, { kind: 'block', name: day, clientId: null, body: {} }, day);
		put('2026-03-01T10:00:00.000Z');
		put('2026-03-30T10:00:00.000Z');
		expect(listBin(db, '2026-03-31T09:59:00.000Z')).to.have.length(2);
		expect(listBin(db, '2026-03-31T10:01:00.000Z')).to.have.length(1);
		put('2026-04-01T10:00:00.000Z');
		expect(db.prepare('SELECT count(*) AS n FROM bin').get()).to.deep.equal({ n: 2 });
	});
});

describe('a client changed in two windows', () => {
	const q = useQueue();
	it('is not overwritten in silence', () => {
		const { db } = q.now;
		const id = createClient(db, v.parse(ClientInput, { name: 'Orrery Hall' }));
		const read = existingClient(db, id);
		const { id: _id, archivedAt: _at, revision, ...input } = read;
		changeClient(db, id, { ...input, note: 'first' }, revision);
		expect(refusal(() => changeClient(db, id, { ...input, note: 'second' }, revision))).to.match(
			/^409 This client was saved in another window/
		);
		expect(existingClient(db, id).note).to.equal('first');
		changeClient(db, id, { ...input, note: 'second' }, existingClient(db, id).revision);
		expect(existingClient(db, id).note).to.equal('second');
	});
});
