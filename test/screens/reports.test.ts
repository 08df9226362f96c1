import { expect } from 'chai';
import { addDays } from '$core/field/windows';
import { createReport, saveDraft } from '../../src/lib/server/rooms/reports/commands';
import { freezeReport } from '../../src/lib/server/rooms/reports/freeze';
import { reportView } from '../../src/lib/server/rooms/reports/view';
import { deriveEvidence } from '../../src/lib/server/rooms/trials/evidence';
import { existingVersion } from '../../src/lib/server/rooms/reports/queries/reports';
import { shownPage, type Shown } from '../support/svelte/show';
import { dataOf, demoDb, press, screen } from '../support/svelte/screens';

const plain = (text: string) => text.replace(/\s+/g, ' ').trim();
const none = { trial: null, clientId: null, period: null, title: '', language: null };

describe('a report on its screens', function () {
	this.timeout(60_000);
	let id: number;
	before(async () => {
		const db = await demoDb();
		await deriveEvidence(db, 1);
		id = createReport(db, { ...none, trial: 1 });
	});

	/** A version as its reader gets it. */
	const readerOf = async (report: number, number: number): Promise<Shown> => {
		const db = await demoDb();
		const { linkedPage } = await import('../../src/routes/reports/versionPage');
		return shownPage(linkedPage(db, existingVersion(db, report, number).id, '/pictures', 'K'.repeat(43)));
	};

	const disclose = async () => {
		const db = await demoDb();
		const { draft, revision } = reportView(db, id);
		saveDraft(db, id, { ...draft, disclosure: { ...draft.disclosure, isPaid: false } }, revision);
	};

	it('is composed of blocks, each with its heading and what can be done with it', async () => {
		const shown = await screen(`/reports/${id}`);
		const { report } = (await dataOf(`/reports/${id}`)).data as { report: ReturnType<typeof reportView> };
		// That of the screen, and that of the report as it will be.
		expect(shown.texts('h1')).to.include('Did adding the chat make the timetable slower?');
		expect(report.draft.blocks.length).to.be.above(4);
		expect(shown.text).to.not.match(/undefined|NaN|\[object/);
		for (const button of shown.all('button'))
			expect(button.attribute('aria-label') || button.attribute('title') || button.text, 'a button').to.not.equal('');
	});

	it('is not frozen before it is said whether somebody paid, and says so', async () => {
		const pressed = await press(`/reports/${id}`, new FormData(), 'freeze');
		expect(pressed).to.have.property('status').that.is.within(400, 422);
		const shown = await screen(`/reports/${id}`, { form: (pressed as { form: unknown }).form });
		expect(shown.text).to.match(/paid/i);
	});

	it('is frozen by its button, and its version shows the same answer as the sheet of the trial', async () => {
		await disclose();
		const pressed = await press(`/reports/${id}`, new FormData(), 'freeze');
		expect(pressed).to.deep.equal({ sentTo: `/reports/${id}/versions/1` });
		const version = await readerOf(id, 1);
		const sheet = await screen('/trials/1');
		const answer = '“With Parlour Bell” is slower in blocking time, heavier and less stable than “Without chat”.';
		expect(sheet.text).to.include(answer);
		expect(plain(version.text)).to.include(answer);
		const figures = sheet
			.all('table')
			.find((table) => table.attribute('aria-label') === 'With Parlour Bell, Phone')!
			.rows()
			.slice(1)
			.map(([name, before, after]) => [name, before, after]);
		for (const [name, before, after] of figures) {
			expect(version.text, name).to.include(name!);
			for (const figure of [before!, after!]) expect(version.text, name).to.include(figure);
		}
	});

	it('of which a version is frozen says what changed in the next', async () => {
		const db = await demoDb();
		const { draft, revision } = reportView(db, id);
		saveDraft(db, id, { ...draft, blocks: draft.blocks.slice(0, -1) }, revision);
		const number = freezeReport(db, id);
		const shown = await screen(`/reports/${id}/versions/${number}`);
		expect(shown.the('h1').text).to.not.equal('');
		expect(shown.text).to.match(/gone|left out|removed|no longer/i);
	});

	it('is listed with its versions, and leads to each', async () => {
		const shown = await screen('/reports');
		const links = shown.all('a').map((link) => link.attribute('href')!);
		expect(links).to.include(`/reports/${id}`);
	});

	it('of a time tells what ended and what moved in it', async () => {
		const db = await demoDb();
		const { id: client } = db.prepare("SELECT id FROM client WHERE name = 'Skerry Line'").get() as { id: number };
		const until = new Date().toISOString().slice(0, 10);
		const period = { from: addDays(until, -330), until };
		const report = createReport(db, { ...none, clientId: client, period });
		const { draft, revision } = reportView(db, report);
		saveDraft(db, report, { ...draft, disclosure: { ...draft.disclosure, isPaid: true } }, revision);
		const shown = await readerOf(report, freezeReport(db, report));
		// Of the scenario: the chat came in February, and a trial told what it does.
		expect(shown.text).to.include('Parlour Bell, the chat, on every page');
		expect(shown.text).to.include('Did adding the chat make the timetable slower?');
		expect(shown.text).to.match(/timetable, Phone: between .* and .*: .*Blocking time slower/);
	});
});
