/** Audits: their loads, what they find, and what becomes of the worklist; with made-up loads. */
import { emptyPage } from '$core/load/record/emptyRecord';
import { expect } from 'chai';
import * as v from 'valibot';
import { AuditInput } from '$core/audits/audit';
import { leaseJob } from '../../src/lib/server/base/queue/jobs';
import {
	changeFindings,
	createAudit,
	deleteAudit,
	FindingChange,
	repeatAudit,
	stopAudit,
	storeAuditLoad
} from '../../src/lib/server/rooms/audits/commands';
import { auditCsv, findingMarkdown, worklistCsv } from '../../src/lib/server/rooms/audits/csv';
import { loneLoads } from '../../src/lib/server/rooms/loads/queries/loads';
import { deriveFindings, findAuditFindings } from '../../src/lib/server/rooms/audits/findings';
import { auditListView, auditView } from '../../src/lib/server/rooms/audits/view';
import { worklistRow, worklistView } from '../../src/lib/server/rooms/audits/worklistView';
import { listFindings } from '../../src/lib/server/rooms/audits/queries/findings';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import { createConditions } from '../../src/lib/server/rooms/conditions/commands';
import { insertBodyFacts } from '../../src/lib/server/rooms/audits/queries/bodies';
import { computeSavings } from '../../src/lib/server/rooms/audits/savings/compute';
import { minified, packed } from '../../src/lab/files/text';
import { dropOldBodies, findBodies } from '../../src/lib/server/rooms/loads/loads';
import { requestedOrder } from '../../src/lib/server/rooms/loads/requested';
import { finishJob } from '../../src/lib/server/base/queue/jobs';
import { disturbedLoad, FAILED, measuredLoad, refusal } from '../support/queue';
import { requestOf } from '../support/records';
import { clean, document, useAudits, withScript } from '../support/audits';

describe('audits', () => {
	const { q, made, lease, input, work, states } = useAudits();
	let clientId: number;
	let pages: number[];
	beforeEach(() => ({ clientId, pages } = made));

	it('need pages, devices and a client whose pages they are', () => {
		expect(v.safeParse(AuditInput, { clientId }).issues?.[0].message).to.match(/^Choose at least one page/);
		expect(refusal(() => createAudit(q.now.db, input({ conditions: ['watch'] })))).to.match(/^422 Unknown conditions/);
		expect(refusal(() => createAudit(q.now.db, input({ clientId: null })))).to.match(/belongs to another client/);
		expect(refusal(() => createAudit(q.now.db, input({ pages: [999] })))).to.match(/^404/);
	});

	it('load every page on every device so often, bad loads once more, and say where each page stands', () => {
		const id = createAudit(q.now.db, input({ urls: ['https://else.test/x'], conditions: ['phone', 'desktop'] }));
		// 3 pages, 2 devices, 3 loads: 18, and one each for a failed and a disturbed one.
		const made = work((url, n) =>
			n === 1 ? FAILED! : n === 2 ? disturbedLoad()! : { ...clean(url), figures: { lcp: 2000 + n } }
		);
		expect(made).to.equal(20);
		const view = auditView(q.now.db, id);
		expect(view).to.include({ status: 'done', isLookedAt: true, name: '3 pages of own.test and else.test' });
		expect(view.pages.map(({ good, failed }) => [good, failed])).to.deep.equal([
			[3, 1],
			[3, 0],
			[3, 0],
			[3, 0],
			[3, 0],
			[3, 0]
		]);
		const { lcp } = view.pages[1]!.metrics;
		expect(lcp!.least).to.be.below(lcp!.most);
		expect(lcp!.band).to.equal('good');
		expect(auditCsv(q.now.db, id).split('\r\n')).to.have.length.at.least(7);
		expect(view.causes.map(({ rule, title }) => [rule, title])).to.deep.equal([]);
		expect(auditListView(q.now.db, clientId).rows[0]).to.include({ id, status: 'done', causes: 0 });
	});

	it('say “about the line” where loads fall on both sides of a threshold', () => {
		const id = createAudit(q.now.db, input({ pages: [pages[0]!] }));
		work((_, n) => ({ ...clean(), figures: { lcp: [2400, 2600, 2450][n - 1]! } }));
		expect(auditView(q.now.db, id).pages[0]).to.include({ worst: 'lcp' });
		expect(auditView(q.now.db, id).pages[0]!.metrics.lcp!.band).to.equal('line');
	});

	it('find causes over pages, and write them into the worklist once', () => {
		const id = createAudit(q.now.db, input());
		work((url) => (url.endsWith('/a') ? withScript() : clean()));
		const [cause] = auditView(q.now.db, id).causes;
		expect(cause).to.deep.include({ rule: 'text-plain-sent', pages: [1, 2], seen: [3, 3], saving: { bytes: 70_000 } });
		expect(cause!.reach).to.equal('on 1 of 2 pages, in 3 of 3 loads');
		expect(states()).to.deep.equal([['text-plain-sent', 'open']]);
		createAudit(q.now.db, input());
		work((url) => (url.endsWith('/a') ? withScript() : clean()));
		expect(states()).to.have.length(1);
	});

	it('follow a line: done by whoever did it, seen done by an audit, and back again', () => {
		const first = createAudit(q.now.db, input());
		work(withScript);
		const [row] = listFindings(q.now.db, { clientId }, 9);
		changeFindings(q.now.db, [row!.id], v.parse(FindingChange, { state: 'done', owner: 'Host', note: 'gzip is on' }));
		const second = repeatAudit(q.now.db, first);
		work(clean);
		expect(auditView(q.now.db, second).since.map(({ rule, fate }) => [rule, fate])).to.deep.equal([
			['text-plain-sent', 'gone']
		]);
		expect(states()).to.deep.equal([['text-plain-sent', 'seen-done']]);
		repeatAudit(q.now.db, second);
		work(withScript);
		expect(states()).to.deep.equal([['text-plain-sent', 'came-back']]);
		expect(listFindings(q.now.db, { clientId }, 9)[0]).to.include({ owner: 'Host', note: 'gzip is on' });
	});

	it('call nothing gone that fewer than three good loads do not show', () => {
		const first = createAudit(q.now.db, input({ loads: 2 }));
		work(withScript);
		repeatAudit(q.now.db, first);
		work(clean);
		expect(states()).to.deep.equal([['text-plain-sent', 'open']]);
	});

	it('only an audit says that a line is seen done', () => {
		expect(v.safeParse(FindingChange, { state: 'seen-done' }).success).to.equal(false);
		expect(refusal(() => changeFindings(q.now.db, [999], { note: 'x' }))).to.equal('404 There is no finding 999.');
	});

	it('can be stopped with what they have', () => {
		const id = createAudit(q.now.db, input());
		expect(refusal(() => repeatAudit(q.now.db, id))).to.match(/^409/);
		expect(refusal(() => deleteAudit(q.now.db, id))).to.match(/^409/);
		const job = lease()!;
		const { version } = requestedOrder(q.now.db, job);
		finishJob(q.now.db, job, 'me');
		storeAuditLoad(q.now.db, job, version, measuredLoad(withScript()));
		stopAudit(q.now.db, id);
		work(clean);
		const view = auditView(q.now.db, id);
		expect(view).to.include({ status: 'stopped', isLookedAt: true });
		expect(view.pages.map(({ good }) => good)).to.deep.equal([1, 0]);
		expect(view.causes).to.have.length(1);
		deleteAudit(q.now.db, id);
		expect(refusal(() => auditView(q.now.db, id))).to.match(/^404/);
		// Its load stays, as a load of its page.
		expect(loneLoads(q.now.db, { clientId }, 9, 0)).to.have.length(1);
		expect(findAuditFindings(q.now.db, id)).to.equal(null);
	});

	it('count a load that was under way when they were stopped', () => {
		const id = createAudit(q.now.db, input());
		const job = lease()!;
		stopAudit(q.now.db, id);
		const { version } = requestedOrder(q.now.db, job);
		finishJob(q.now.db, job, 'me');
		storeAuditLoad(q.now.db, job, version, measuredLoad(withScript()));
		work(clean);
		expect(auditView(q.now.db, id).pages[0]!.good).to.equal(1);
		expect(auditView(q.now.db, id).causes).to.have.length(1);
	});

	it('take turns with trials: a load of an audit between two rounds', () => {
		q.now.make({ rounds: 2 });
		createAudit(q.now.db, input());
		const kinds: string[] = [];
		for (let i = 0; i < 6; i++) {
			const job = leaseJob(q.now.db, 'me', new Date(Date.now() + i).toISOString())!;
			kinds.push(job.slot ? `round ${job.slot.round}` : job.subject.kind);
			finishJob(q.now.db, job, 'me');
		}
		expect(kinds).to.deep.equal(['audit', 'round 1', 'round 1', 'audit', 'round 2', 'round 2']);
	});

	it('hand over: as a table, and as one issue text a line', () => {
		createAudit(q.now.db, input());
		work(withScript);
		expect(worklistCsv(q.now.db, { clientId }))
			.to.match(/^"?state"?,/)
			.and.match(/A text file of own\.test is sent without compression/);
		const [row] = listFindings(q.now.db, { clientId }, 9);
		const text = findingMarkdown(worklistRow(row!), 'http://zafra.test');
		expect(text).to.match(/^# A text file of own\.test is sent without compression/);
		expect(text).to.match(/## Done when\n\nDone when three good loads no longer show it\./);
		expect(worklistView(q.now.db, { clientId, words: 'OWN.' }).total).to.equal(1);
		expect(worklistView(q.now.db, { clientId, page: pages[0]! }).total).to.equal(1);
		expect(worklistView(q.now.db, { clientId, page: 999 }).total).to.equal(0);
	});

	it('work out what could be saved of what came, once for each content, and tell it in the findings', async () => {
		const id = createAudit(q.now.db, input({ pages: [pages[0]!], loads: 1 }));
		const text = `/* ${'The timetable of the ferry. '.repeat(2000)} */\nwindow.sailings = [ ${'1,  2,  3,  '.repeat(300)} ];`;
		const script = () =>
			requestOf({
				type: 'script',
				url: 'https://own.test/app.js',
				mimeType: 'text/javascript',
				wireBytes: text.length,
				decodedBytes: text.length,
				responseHeaders: [['cache-control', 'max-age=31536000']]
			});
		const file = { request: '1', url: 'https://own.test/app.js', type: 'script', media: 'text/javascript' };
		const job = lease()!;
		const { url, version, bodies } = requestedOrder(q.now.db, job);
		expect(bodies).to.equal(true);
		finishJob(q.now.db, job, 'me');
		storeAuditLoad(q.now.db, job, version, {
			...measuredLoad({ url, requests: [document(), script()] }),
			bodies: {
				kept: {
					files: [
						{ ...file, unused: [] },
						{ ...file, request: '2', unused: [] }
					],
					drawn: null
				},
				files: [Buffer.from(text), Buffer.from(text)]
			}
		});
		deriveFindings(q.now.db, id);
		expect(auditView(q.now.db, id).causes.map(({ rule }) => rule)).to.not.include('not-minified');
		expect(await computeSavings(q.now.db, id)).to.deep.equal({ done: 1, total: 1 });
		deriveFindings(q.now.db, id);
		const { causes, savings } = auditView(q.now.db, id);
		const { plain } = await packed(await minified('script', text));
		expect(causes.find(({ rule }) => rule === 'not-minified')!.saving).to.deep.equal({ bytes: text.length - plain });
		expect(savings).to.include({ done: 1, total: 1, isOver: true });
		// What came is dropped after some days; what was worked out of it stays.
		const [load] = auditView(q.now.db, id).pages[0]!.loads;
		expect(findBodies(q.now.db, load!)).to.not.equal(null);
		dropOldBodies(q.now.db, Date.now() + 15 * 86_400_000);
		expect(findBodies(q.now.db, load!)).to.equal(null);
		deriveFindings(q.now.db, id);
		expect(auditView(q.now.db, id).causes.map(({ rule }) => rule)).to.include('not-minified');
	});

	it('take back what their files show to be none, unless somebody has touched the line', () => {
		const id = createAudit(q.now.db, input({ pages: [pages[0]!], loads: 1 }));
		const large = requestOf({
			type: 'image',
			url: 'https://own.test/a.jpg',
			mimeType: 'image/jpeg',
			wireBytes: 90_000
		});
		const shown = { url: large.url, naturalWidth: 4000, naturalHeight: 2000, shownWidth: 320, shownHeight: 160 };
		const image = { ...shown, selector: 'img', lazy: false, roomReserved: true, inView: true };
		work(() => ({ requests: [document(), large], page: { ...emptyPage('A'), images: [image] } }));
		expect(states()).to.deep.equal([['picture-too-large', 'open']]);
		const none = { format: 'jpeg' as const, width: 4000, height: 2000, isAnimated: false, encoded: [] };
		insertBodyFacts(q.now.db, id, large.url, {
			...{ hash: 'a', bytes: 90_000, packed: null, minified: null, cut: null, helpers: [], writesDocument: false },
			...{ font: null, fault: null, picture: { ...none, needed: { width: 800, height: 400 } } }
		});
		deriveFindings(q.now.db, id);
		expect(states()).to.deep.equal([]);
	});

	it('keep nothing that came from a page behind a sign-in', () => {
		const [phone] = BUILT_IN_CONDITIONS;
		const authentication = { username: 'ines', password: 'secret' };
		createConditions(q.now.db, { ...phone!, id: 'staff', name: 'Staff', authentication }, null);
		createAudit(q.now.db, input({ pages: [pages[0]!], conditions: ['staff'], loads: 1 }));
		expect(requestedOrder(q.now.db, lease()!).bodies).to.equal(false);
	});
});
