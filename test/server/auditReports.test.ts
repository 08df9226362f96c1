/** What reports show of audits, of the worklist and of one load; and how they are handed over. */
import { expect } from 'chai';
import { NO_WORDS } from '$core/report/richText';
import { changeFindings, createAudit } from '../../src/lib/server/rooms/audits/commands';
import { listFindings } from '../../src/lib/server/rooms/audits/queries/findings';
import { auditView } from '../../src/lib/server/rooms/audits/view';
import { createReport, saveDraft } from '../../src/lib/server/rooms/reports/commands';
import { freezeReport } from '../../src/lib/server/rooms/reports/freeze';
import { existingReport, frozenOf, listVersions, reportView } from '../../src/lib/server/rooms/reports/view';
import { createShare, openShare } from '../../src/lib/server/rooms/reports/view';
import { clientWithSite } from '../support/clients';
import { refusal } from '../support/queue';
import { useAudits, withScript } from '../support/audits';

describe('reports of audits', () => {
	const { q, made, input, work } = useAudits();
	let clientId: number;
	let audit: number;
	beforeEach(() => {
		({ clientId } = made);
		audit = createAudit(q.now.db, input({ pages: [made.pages[0]!], loads: 1 }));
		work((url) => ({ ...withScript(), finalUrl: url, figures: { lcp: 3100, wire: 109_000 } }));
	});
	const blocksOf = (report: number) => reportView(q.now.db, report).view.blocks;
	const bodyOf = (report: number, id: string) => blocksOf(report).find((block) => block.id === id)!.body;

	it('show where each page stood and what is to be done, in either language', () => {
		const english = createReport(q.now.db, { audit });
		expect(blocksOf(english).map(({ from }) => from)).to.deep.equal(['text', 'audit', 'worklist', 'disclosure']);
		expect(bodyOf(english, 'audit')).to.have.nested.property('tables[0].rows[0].cells[0]', '/a');
		expect(JSON.stringify(bodyOf(english, 'audit'))).to.contain('3.10');
		const line = bodyOf(english, 'worklist');
		if (line.kind !== 'recommendations') throw new Error(line.kind);
		expect(line.items[0]!.what).to.match(/^A text file of own\.test is sent without compression\. gzip would save 70/);
		expect(line.items[0]!.facts.map(({ name }) => name)).to.include.members(['Where', 'Who', 'Done when', 'State']);
		const spanish = createReport(q.now.db, { audit, language: 'es' });
		const told = JSON.stringify(blocksOf(spanish));
		expect(told).to.contain('Un archivo de texto de own.test se envía sin comprimir').and.contain('3,10');
		expect(told).not.to.match(/Done when|Developer|without compression/);
	});

	it('show one load with its figures, weight and findings, each under a heading', () => {
		const [load] = auditView(q.now.db, audit).pages[0]!.loads;
		const report = createReport(q.now.db, { load: load! });
		expect(blocksOf(report).map(({ id }) => id)).to.deep.equal(['load', 'load-weight', 'load-findings', 'disclosure']);
		expect(bodyOf(report, 'load')).to.have.nested.property('tables[0].title', 'https://own.test/a');
		expect(bodyOf(report, 'load-weight')).to.have.nested.property('tables[1].rows.length', 2);
		expect(existingReport(q.now.db, report).clientId).to.equal(clientId);
	});

	it('show nothing of another client', () => {
		const other = clientWithSite(q.now.db, 'other.test', 'Other').clientId;
		const report = createReport(q.now.db, { clientId: other });
		const { draft, revision } = existingReport(q.now.db, report);
		const [load] = auditView(q.now.db, audit).pages[0]!.loads;
		const bare = { heading: '', words: NO_WORDS };
		const blocks = [
			{ ...bare, id: 'a', kind: 'audit' as const, audit },
			{ ...bare, id: 's', kind: 'side' as const, audit },
			{ ...bare, id: 'l', kind: 'load' as const, load: load! },
			{ ...bare, id: 'w', kind: 'worklist' as const }
		];
		saveDraft(q.now.db, report, { ...draft, blocks }, revision);
		expect(blocksOf(report).map(({ body }) => body.kind)).to.deep.equal(Array(4).fill('missing'));
		expect(JSON.stringify(blocksOf(report))).not.to.contain('own.test');
	});

	it('hand the worklist over by link, as it stood then', () => {
		const [row] = listFindings(q.now.db, { clientId }, 9);
		changeFindings(q.now.db, [row!.id], { question: 'May we switch on gzip?' });
		const report = createReport(q.now.db, { clientId, worklist: true });
		const { draft, revision } = existingReport(q.now.db, report);
		saveDraft(q.now.db, report, { ...draft, disclosure: { isPaid: false, words: '' } }, revision);
		freezeReport(q.now.db, report);
		const [version] = listVersions(q.now.db, report);
		const token = createShare(q.now.db, report, version!.number, { expiresAt: null, phrase: '' });
		changeFindings(q.now.db, [row!.id], { state: 'done' });
		expect(openShare(q.now.db, token)).to.not.equal(null);
		const told = JSON.stringify(frozenOf(q.now.db, version!.id).view);
		expect(told).to.contain('May we switch on gzip?').and.contain('"open"');
	});

	it('are refused for what is not there or not over', () => {
		expect(refusal(() => createReport(q.now.db, { audit: 99 }))).to.match(/^404/);
		expect(refusal(() => createReport(q.now.db, { load: 99 }))).to.match(/^404/);
		expect(refusal(() => createReport(q.now.db, {}))).to.match(/^422 Name the trial, the load/);
		const open = createAudit(q.now.db, input());
		expect(refusal(() => createReport(q.now.db, { audit: open }))).to.match(/^409 This audit is still under way/);
	});

	it('begin a worksheet with what the newest audit found to cost most', () => {
		const report = createReport(q.now.db, { clientId });
		const sheet = existingReport(q.now.db, report).draft.blocks.find(({ kind }) => kind === 'worksheet')!;
		if (sheet.kind !== 'worksheet') throw new Error(sheet.kind);
		expect(sheet.lines[0]).to.include({ state: 'todo' });
		expect(sheet.lines[0]!.note).to.match(/^A text file of own\.test is sent without compression/);
		const body = bodyOf(report, 'worksheet');
		if (body.kind !== 'tables') throw new Error(body.kind);
		const at = body.tables[0]!.head.indexOf('Because');
		expect(body.tables[0]!.rows[0]!.cells[at]).to.match(/^largest paint 3\.10.s in the lab misses 2\.50.s$/i);
	});
});
