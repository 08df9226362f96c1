/** What stands beside an audit's findings: targets, visitors, a line looked at again; with made-up loads. */
import { expect } from 'chai';
import { createAudit, lookAgainAt, repeatAudit } from '../../src/lib/server/rooms/audits/commands';
import { auditCsv } from '../../src/lib/server/rooms/audits/csv';
import { auditView } from '../../src/lib/server/rooms/audits/view';
import { listFindings } from '../../src/lib/server/rooms/audits/queries/findings';
import { findAudit } from '../../src/lib/server/rooms/audits/queries/audits';
import { listPages } from '../../src/lib/server/rooms/pages/queries/pages';
import { saveReading } from '../../src/lib/server/rooms/field/queries/readings';
import { clean, useAudits, withScript } from '../support/audits';

describe('beside the findings of an audit', () => {
	const { q, made, input, work, setTargets, states } = useAudits();
	let clientId: number;
	let siteId: number;
	let pages: number[];
	beforeEach(() => ({ clientId, siteId, pages } = made));

	it('say how the pages come within the target of bytes, and that time is not known', () => {
		setTargets([{ metric: 'wire', conditions: null, value: 150_000 }]);
		const id = createAudit(q.now.db, input({ pages: [pages[0]!] }));
		work(() => ({ ...withScript(), figures: { wire: 200_000, lcp: 9000 } }));
		const { way, causes } = auditView(q.now.db, id);
		// The script of 100,000 bytes is 30,000 with gzip (its body's fact): 70,000 saved, 50,000 wanted.
		expect(way[0]).to.match(
			/^Shortest way: “A text file of own\.test is sent without compression” alone brings the page/
		);
		expect(way[1]).to.match(/LCP/).and.not.match(/\d/);
		expect(causes[0]!.rank).to.match(/^Here because: [\d.]+ margins where it costs most, times (100 %|1 of 1 pages)/);
	});

	it('say that all savings together are not enough', () => {
		setTargets([{ metric: 'wire', conditions: null, value: 50_000 }]);
		const id = createAudit(q.now.db, input({ pages: [pages[0]!] }));
		work(() => ({ ...withScript(), figures: { wire: 200_000 } }));
		expect(auditView(q.now.db, id).way[0]).to.match(/^All computed savings together do not bring the page/);
	});

	it('look again at the pages of one line alone, often enough for it to be seen done', () => {
		createAudit(q.now.db, input({ loads: 1 }));
		work((url) => (url.endsWith('/a') ? withScript() : clean(url)));
		const [row] = listFindings(q.now.db, { clientId }, 9);
		const again = lookAgainAt(q.now.db, row!.id);
		expect(findAudit(q.now.db, again)!.design).to.deep.include({ loads: 3 });
		expect(findAudit(q.now.db, again)!.design.pages.map(({ url }) => url)).to.deep.equal(['https://own.test/a']);
		work((url) => clean(url));
		expect(states()).to.deep.equal([['text-plain-sent', 'seen-done']]);
	});

	it('call nothing gone everywhere that was looked for on some of its pages', () => {
		const first = createAudit(q.now.db, input());
		work(withScript);
		const again = repeatAudit(q.now.db, first, [0]);
		work((url) => clean(url));
		expect(auditView(q.now.db, again).since.map(({ fate }) => fate)).to.deep.equal(['not-seen']);
		expect(states()).to.deep.equal([['text-plain-sent', 'open']]);
	});

	it('say beside each page what its visitors have, and where to move on', () => {
		const [a] = pages.map((pageId) => listPages(q.now.db, { siteId }, 9).find((page) => page.id === pageId)!.url);
		const metric = (p75: number) => ({ p75, shares: null, bins: [[0, 1]] as [number, number][] });
		const save = (pageId: number, device: 'phone' | 'desktop', lcp: number) =>
			saveReading(q.now.db, siteId, {
				...{ pageId, device, source: 'csv' as const, from: '2026-08-01', until: '2026-08-28' },
				metrics: { lcp: metric(lcp), inp: metric(120), cls: metric(0.02) }
			});
		save(pages[0]!, 'phone', 1800);
		save(pages[0]!, 'desktop', 1200);
		save(pages[1]!, 'phone', 5200);
		const id = createAudit(q.now.db, input({ conditions: ['phone', 'desktop'] }));
		work((url) => clean(url));
		const view = auditView(q.now.db, id);
		expect(view.moveOn).to.deep.equal([a]);
		expect(view.pages.map(({ field }) => field?.words ?? null)).to.deep.equal([
			'good on all three',
			'good on all three',
			'misses LCP',
			null
		]);
		expect(auditCsv(q.now.db, id).split('\n')[3]).to.match(/does-not,page/);
	});
});
