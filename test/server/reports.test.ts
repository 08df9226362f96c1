import { expect } from 'chai';
import { unzipSync } from 'fflate';
import sharp from 'sharp';
import { verifyBundle } from '$core/verification/verify';
import { richTextOf } from '$core/report/richText';
import { deleteTrial } from '../../src/lib/server/rooms/trials/commands';
import { deriveEvidence } from '../../src/lib/server/rooms/trials/evidence';
import { findLogo, hasLogo, saveLogo } from '../../src/lib/server/rooms/reports/agency';
import { bundleOf } from '../../src/lib/server/rooms/reports/bundle';
import { createReport, removeReport, saveDraft } from '../../src/lib/server/rooms/reports/commands';
import { freezeReport } from '../../src/lib/server/rooms/reports/freeze';
import { drawingVersion, wholeReport } from '../../src/lib/report/whole';
import { sha256 } from '../../src/lib/server/base/db/functions';
import { findReportPicture } from '../../src/lib/server/rooms/reports/pictures';
import { isSignedBy, signingKey } from '../../src/lib/server/rooms/reports/signing';
import { findPdf, pdfState, requestPdf, savePdf, takePage } from '../../src/lib/server/rooms/reports/pdf';
import {
	existingReport,
	existingVersion,
	frozenOf,
	listReports,
	listVersions
} from '../../src/lib/server/rooms/reports/queries/reports';
import { createShare, listShares, openShare, revokeShare } from '../../src/lib/server/rooms/reports/queries/shares';
import { isPhrase, TryLimit } from '../../src/lib/server/rooms/reports/shares';
import { keepLines } from '../../src/lib/server/rooms/reports/queries/worksheet';
import { reportView, versionView } from '../../src/lib/server/rooms/reports/view';
import { sql, type Db } from '../../src/lib/server/base/db/connection';
import { createClient } from '../../src/lib/server/rooms/clients/commands';
import { insertSite } from '../../src/lib/server/rooms/clients/queries/sites';
import { addMarker } from '../../src/lib/server/rooms/field/markers';
import { savePages } from '../../src/lib/server/rooms/pages/queries/changes';
import type { Workplace } from '../../src/lib/server/runner/handler';
import { handlerOf } from '../../src/lib/server/runner/handlers';
import { leaseJob } from '../../src/lib/server/base/queue/jobs';
import { newClient } from '$core/clients/client';
import { SiteInput } from '$core/clients/site';
import * as v from 'valibot';
import { refusal, useQueue } from '../support/queue';
import { requestOf } from '../support/records';

const NEW = { trial: null, clientId: null, period: null, title: '', language: null };
const ANYBODY = { expiresAt: null, phrase: '' };

/** A client with a site and one chosen page. */
function furnishClient(db: Db) {
	const clientId = createClient(db, newClient('Skerry Line'));
	const siteId = insertSite(
		db,
		clientId,
		v.parse(SiteInput, { host: 'skerry-line.test', name: 'Skerry Line', role: 'own' })
	);
	savePages(db, siteId, [{ url: 'https://skerry-line.test/', type: 'home' }], 'sitemap');
	db.prepare('UPDATE page SET is_chosen = 1').run();
	return { clientId, siteId, pageId: db.prepare('SELECT id FROM page').pluck().get() as number };
}

const NO_FRAMES = { kind: 'missing', why: 'The loads of this trial have no frames.', isEmpty: true };
describe('reports', () => {
	const q = useQueue();
	const db = () => q.now.db;
	const bundle = (versionId: number) => {
		const key = signingKey(q.now.folder);
		const pictureOf = (name: string) => findReportPicture(db(), versionId, name);
		const html = wholeReport(frozenOf(db(), versionId).view, key.publicKey, pictureOf);
		return bundleOf(db(), versionId, { html, drawing: drawingVersion(sha256), version: '0', key });
	};

	/** A finished trial whose second variant is heavier in every round. @param isPacked only the first one's text is */
	async function doneTrial(isPacked = false): Promise<number> {
		const id = q.now.make({ rounds: 8, primary: ['wire', 'requests'] });
		const baseline = q.now.trial(id).design.arms[0]!.id;
		for (let job = q.now.lease(); job; job = q.now.lease()) {
			const isBaseline = job.armId === baseline;
			const url = isBaseline ? 'http://a.test/' : 'http://b.test/x';
			const bytes = isBaseline ? 100_000 : 300_000;
			const responseHeaders: [string, string][] = isPacked && isBaseline ? [['content-encoding', 'gzip']] : [];
			const document = { url, type: 'document', mimeType: 'text/html', wireBytes: bytes, decodedBytes: bytes };
			const requests = [requestOf({ ...document, responseHeaders })];
			const figures = { wire: bytes, decoded: bytes, requests: 1, lcp: null, cls: 0, tbt: null, score: null };
			q.now.finish(job, { url, finalUrl: url, requests, figures });
		}
		await deriveEvidence(db(), id);
		return id;
	}

	async function paidReport(): Promise<{ trial: number; report: number }> {
		const trial = await doneTrial();
		const report = createReport(db(), { ...NEW, trial });
		const { draft, revision } = existingReport(db(), report);
		saveDraft(db(), report, { ...draft, disclosure: { isPaid: false, words: '' } }, revision);
		return { trial, report };
	}

	it('on a trial begin with a good draft of its answer, its board, its weight and its loads', async () => {
		const trial = await doneTrial();
		const id = createReport(db(), { ...NEW, trial });
		const { view, choices } = reportView(db(), id);
		const bodyOf = (kind: string) => view.blocks.find(({ from }) => from === kind)!.body;
		expect(bodyOf('answer')).to.have.nested.property('answers[0].tone', 'worse');
		const board = bodyOf('board');
		if (board.kind !== 'board') throw new Error(board.kind);
		const [wire] = board.boards[0]!.rows;
		expect(wire!.word.text).to.equal('heavier');
		expect(wire!.variant.text).to.equal('300\u00a0kB');
		expect(wire!.shift.replaceAll('\u00a0', ' ')).to.match(/^200 kB more \(identical in every round\)$/);
		expect(bodyOf('appendix')).to.have.nested.property('tables[0].rows.length', 16);
		expect(bodyOf('frames')).to.deep.equal(NO_FRAMES);
		expect(choices.map(({ ref }) => ref)).to.include(wire!.variant.ref);
	});

	it('are told in the client’s language, figures and all', async () => {
		const trial = await doneTrial();
		const id = createReport(db(), { ...NEW, trial, language: 'es' });
		const { view } = reportView(db(), id);
		expect(view.labels.stamp).to.equal('Borrador: las cifras aún pueden cambiar');
		expect(JSON.stringify(view.blocks.find(({ from }) => from === 'board'))).to.contain('más pesada');
	});

	it('carry beside each answer what it must not be read without, whatever the language', async () => {
		const trial = await doneTrial(true);
		const answersIn = (language: 'en' | 'es') => {
			const id = createReport(db(), { ...NEW, trial, language });
			const body = reportView(db(), id).view.blocks.find(({ from }) => from === 'answer')!.body;
			if (body.kind !== 'answer') throw new Error(body.kind);
			return body.answers[0]!.caveats!;
		};
		const differs = /^Also different between the two: compression of the document/;
		expect(answersIn('en')).to.have.length(1);
		expect(answersIn('en')[0]).to.match(differs);
		expect(answersIn('es')).to.have.length(1);
		expect(answersIn('es')[0]).to.match(/^También difieren entre ambas: compresión del documento/);
	});

	it('are not saved over what somebody else saved meanwhile', async () => {
		const { report } = await paidReport();
		const { draft, revision } = existingReport(db(), report);
		saveDraft(db(), report, { ...draft, title: 'Mine' }, revision);
		expect(refusal(() => saveDraft(db(), report, { ...draft, title: 'Theirs' }, revision))).to.match(
			/^409 Somebody else has saved this report/
		);
		expect(existingReport(db(), report).draft.title).to.equal('Mine');
	});

	it('are not frozen before it is said whether anybody pays, nor empty', async () => {
		const report = createReport(db(), { ...NEW, trial: await doneTrial() });
		expect(refusal(() => freezeReport(db(), report))).to.match(/^422 Say whether anybody pays you/);
		const { draft, revision } = existingReport(db(), report);
		saveDraft(db(), report, { ...draft, blocks: [], disclosure: { isPaid: true, words: '' } }, revision);
		expect(refusal(() => freezeReport(db(), report))).to.match(/^422 The report is empty/);
	});

	it('once frozen stand as they were, though trial and draft change or go', async () => {
		const { trial, report } = await paidReport();
		expect(freezeReport(db(), report)).to.equal(1);
		const version = existingVersion(db(), report, 1);
		const before = JSON.stringify(frozenOf(db(), version.id));
		const whole = bundle(version.id);
		const { draft, revision } = existingReport(db(), report);
		saveDraft(db(), report, { ...draft, title: 'Another title' }, revision);
		deleteTrial(db(), trial);
		expect(JSON.stringify(frozenOf(db(), version.id))).to.equal(before);
		expect(Object.keys(unzipSync(bundle(version.id)))).to.deep.equal(Object.keys(unzipSync(whole)));
		// The draft says what it has lost; a new version says what changed.
		const gone = reportView(db(), report).view.blocks.filter(({ body }) => body.kind === 'missing');
		expect(gone.map(({ from }) => from)).to.include.members(['answer', 'board', 'appendix']);
		expect(freezeReport(db(), report)).to.equal(2);
		expect(versionView(db(), report, 2).changes).to.include({ isTitleChanged: true });
	});

	it('have a bundle whose figures follow from its loads', async () => {
		const { report } = await paidReport();
		freezeReport(db(), report);
		const { id } = existingVersion(db(), report, 1);
		const files = new Map(Object.entries(unzipSync(bundle(id))));
		const drawing = { version: drawingVersion(sha256), draw: wholeReport };
		const pinned = signingKey(q.now.folder).publicKey;
		const found = verifyBundle(files, { sha256, isSigned: isSignedBy, pinned, drawing });
		expect(found.faults).to.deep.equal([]);
		expect([found.end, found.key]).to.deep.equal(['verified', pinned]);
		expect(found.figures).to.be.above(500);
		expect([...files.keys()].filter((name) => name.endsWith('.har'))).to.have.length(16);
	});

	it('take versions, pictures, records and links with them when they are deleted', async () => {
		const { trial, report } = await paidReport();
		freezeReport(db(), report);
		createShare(db(), report, 1, ANYBODY);
		removeReport(db(), report);
		deleteTrial(db(), trial);
		const left = (table: string) => sql<{ n: number }>(db(), `SELECT count(*) AS n FROM ${table}`).get()!.n;
		expect(['report_version', 'report_share', 'artifact_use', 'artifact'].map(left)).to.deep.equal([0, 0, 0, 0]);
		expect(refusal(() => existingReport(db(), report))).to.match(/^404/);
	});

	describe('links', () => {
		let report: number;
		beforeEach(async () => {
			({ report } = await paidReport());
			freezeReport(db(), report);
		});
		const versionId = () => existingVersion(db(), report, 1).id;

		it('open one version, by a token that is stored nowhere', () => {
			const token = createShare(db(), report, 1, ANYBODY);
			expect(token).to.match(/^[\w-]{43}$/);
			expect(openShare(db(), token)).to.include({ versionId: versionId(), phrase: null });
			const stored = JSON.stringify(sql(db(), 'SELECT * FROM report_share').all());
			expect(stored).to.not.contain(token);
			expect(listReports(db(), null)[0]).to.include({ number: 1, links: 1 });
		});

		it('are closed alike when wrong, revoked or expired', () => {
			const [revoked, expired] = [createShare(db(), report, 1, ANYBODY), createShare(db(), report, 1, ANYBODY)];
			const [last, first] = listShares(db(), versionId());
			revokeShare(db(), first!.id);
			sql(db(), "UPDATE report_share SET expires_at = '2026-01-01T00:00:00.000Z' WHERE id = ?").run(last!.id);
			for (const token of [revoked, expired, 'wrong', '', 'x'.repeat(5000)])
				expect(openShare(db(), token)).to.equal(null);
		});

		it('are not made for a day that is over, nor for a version that is not there', () => {
			expect(refusal(() => createShare(db(), report, 1, { ...ANYBODY, expiresAt: '2020-01-01' }))).to.match(
				/^422 That day is over/
			);
			expect(refusal(() => createShare(db(), report, 9, ANYBODY))).to.match(/^404/);
		});

		it('with a pass phrase open for it alone; the phrase is stored nowhere', () => {
			const token = createShare(db(), report, 1, { ...ANYBODY, phrase: 'grey seal' });
			const { phrase } = openShare(db(), token)!;
			expect(phrase).to.not.contain('seal');
			expect([' grey seal ', 'grey', ''].map((typed) => isPhrase(phrase!, typed))).to.deep.equal([true, false, false]);
		});

		it('let one address try thirty times a minute', () => {
			let now = 1_000_000;
			const limit = new TryLimit(() => now);
			for (let i = 0; i < 30; i++) {
				expect(limit.isOver('a')).to.equal(false);
				limit.note('a');
			}
			expect([limit.isOver('a'), limit.isOver('b')]).to.deep.equal([true, false]);
			now += 60_000;
			expect(limit.isOver('a')).to.equal(false);
		});
	});

	it('are printed once: a second wish waits for the first', async () => {
		const { report } = await paidReport();
		freezeReport(db(), report);
		const { id } = existingVersion(db(), report, 1);
		expect(pdfState(db(), id, 'A4')).to.deep.equal({ state: 'none' });
		requestPdf(db(), id, 'A4', '<p>Hello</p>');
		requestPdf(db(), id, 'A4', '<p>Hello</p>');
		expect(sql(db(), "SELECT count(*) FROM job WHERE kind = 'render'").pluck().get()).to.equal(1);
		expect(pdfState(db(), id, 'A4')).to.deep.equal({ state: 'waiting' });
		expect(takePage(db(), id)).to.deep.equal({ html: '<p>Hello</p>', title: 'Is it?' });
		sql(db(), "UPDATE job SET status = 'done' WHERE kind = 'render'").run();
		savePdf(db(), id, 'A4', Buffer.from('%PDF'));
		expect(pdfState(db(), id, 'A4')).to.deep.equal({ state: 'ready' });
		expect(findPdf(db(), id, 'Letter')).to.equal(null);
	});

	it('that cannot be printed say why, and are printed at the next wish', async () => {
		const { report } = await paidReport();
		freezeReport(db(), report);
		const { id } = existingVersion(db(), report, 1);
		const printed: string[] = [];
		const printWith = async (print: () => Promise<Buffer>) => {
			requestPdf(db(), id, 'Letter', '<p>Hello</p>');
			const job = leaseJob(db(), 'me')!;
			expect(job).to.deep.include({ kind: 'render', order: { paper: 'Letter' } });
			const lab = { print: ({ html }: { html: string }) => (printed.push(html), print()) };
			const log = { info: () => undefined, warn: () => undefined, error: () => undefined };
			const at = { db: db(), lab, labId: 'me', log, persist: async (write: () => unknown) => write() };
			await handlerOf(job.kind).run(job, at as unknown as Workplace);
		};
		await printWith(() =>
			Promise.reject(new Error('Chromium was not found. Install it with: apt-get install chromium'))
		);
		expect(pdfState(db(), id, 'Letter')).to.deep.equal({
			state: 'failed',
			problem: 'Chromium was not found. Install it with: apt-get install chromium'
		});
		await printWith(() => Promise.resolve(Buffer.from('%PDF-1.4')));
		expect(pdfState(db(), id, 'Letter')).to.deep.equal({ state: 'ready' });
		expect(findPdf(db(), id, 'Letter')!.toString()).to.equal('%PDF-1.4');
		expect(printed).to.deep.equal(['<p>Hello</p>', '<p>Hello</p>']);
	});

	it('of a time tell which trials ended then, what was done and what is open', async () => {
		const { clientId, siteId, pageId } = furnishClient(db());
		const trial = await doneTrial();
		db().prepare('UPDATE trial SET client_id = ? WHERE id = ?').run(clientId, trial);
		addMarker(db(), siteId, { day: '2026-11-12', path: '', kind: 'release', words: 'New booking form' });
		keepLines(db(), [
			{ page: pageId, device: 'phone', state: 'waiting', note: 'Texts from the client', owner: 'Ines' }
		]);
		const today = new Date().toISOString().slice(0, 10);
		const linesOf = (from: string, until: string) => {
			const id = createReport(db(), { ...NEW, clientId, period: { from, until } });
			const { body } = reportView(db(), id).view.blocks.find((block) => block.from === 'period')!;
			if (body.kind !== 'lines') throw new Error(body.kind);
			return body.groups.map(({ lines }) => lines.join(' '));
		};
		const [trials, , , markers, open] = linesOf('2026-11-01', today);
		expect(trials).to.match(/^Is it\? Desktop: .*“B” is heavier than “A”\./);
		expect(markers).to.equal('12 November 2026: New booking form');
		expect(open).to.equal('/, phone: waits for somebody, Texts from the client');
		expect(linesOf('2026-01-01', '2026-01-31').slice(0, 4)).to.deep.equal([
			'No trial ended in this time.',
			'No data yet.',
			'No watched page was read in this time.',
			'No change was noted.'
		]);
		expect(
			refusal(() => createReport(db(), { ...NEW, clientId, period: { from: '2026-02-01', until: '2026-01-01' } }))
		).to.match(/^422/);
	});

	it('keep words as they were typed', async () => {
		const { report } = await paidReport();
		const { draft, revision } = existingReport(db(), report);
		const words = richTextOf('A <script>alert(1)</script> & “more”.');
		saveDraft(db(), report, { ...draft, blocks: [{ id: 'a', heading: '', words, kind: 'text' }] }, revision);
		expect(existingReport(db(), report).draft.blocks[0]!.words).to.deep.equal(words);
		expect(listVersions(db(), report)).to.deep.equal([]);
	});

	it('carry a logo that is pixels, whatever the file held', async () => {
		const hostile = Buffer.from(
			'<svg xmlns="http://www.w3.org/2000/svg" width="200" height="60" onload="alert(1)"><script>alert(1)</script><image href="file:///etc/passwd"/><rect width="200" height="60" fill="teal"/></svg>'
		);
		await saveLogo(db(), hostile);
		expect(hasLogo(db())).to.equal(true);
		const { format, height } = await sharp(findLogo(db())!).metadata();
		expect({ format, height }).to.deep.equal({ format: 'png', height: 120 });
		expect(findLogo(db())!.includes('script')).to.equal(false);
		const refused = await saveLogo(db(), Buffer.from('no picture')).catch((error: Error) => error.message);
		expect(refused).to.match(/^This is no picture/);
	});
});
