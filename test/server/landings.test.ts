import { expect } from 'chai';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import { emptyRecord } from '$core/load/record/emptyRecord';
import { landedElsewhere } from '$core/load/record/landing';
import { isSameTemplate, markupCode } from '$core/load/record/signature';
import { freezeConditions } from '../../src/lib/server/rooms/conditions/queries/versions';
import { insertLoad } from '../../src/lib/server/rooms/loads/loads';
import { loneLoads } from '../../src/lib/server/rooms/loads/queries/loads';
import { noteLandings } from '../../src/lib/server/rooms/loads/landings';
import { labFiguresOf, labLoadsOfUrl } from '../../src/lib/server/rooms/loads/pageFigures';
import { deriveHistory } from '../../src/lib/server/rooms/watch/history';
import { watchedPageView } from '../../src/lib/server/rooms/watch/pageView';
import { markRead, unreadNotices } from '../../src/lib/server/rooms/watch/queries/notices';
import { brokenPages, watchList } from '../../src/lib/server/rooms/watch/view';
import { pagesOfWatch } from '../../src/lib/server/rooms/watch/queries/watches';
import { measuredLoad, useQueue } from '../support/queue';
import { useWatches } from '../support/watches';

const URL_OF_PAGE = 'https://own.test/account';
const template = (seed: number) => Array.from({ length: 128 }, (_, i) => (i + 1) * 7919 * seed);
const page = (seed: number) => ({ ...emptyRecord(URL_OF_PAGE, null, '', null).page!, signature: template(seed) });

describe('where a load ended', () => {
	it('is another page when host or path differ, a slash or https apart', () => {
		const landed = (finalUrl: string) => landedElsewhere({ url: 'http://own.test/a', finalUrl });
		expect(landed('https://own.test/a/')).to.equal(null);
		expect(landed('http://own.test/a?x=1')).to.equal(null);
		expect(landed('https://own.test/sign-in')).to.equal('https://own.test/sign-in');
		expect(landed('https://www.own.test/a')).to.equal('https://www.own.test/a');
	});

	it('tells templates apart by codes of eight bits a hash', () => {
		const half = [...template(1).slice(0, 70), ...template(3).slice(70)];
		expect(isSameTemplate(markupCode(template(1)), markupCode(half))).to.equal(true);
		expect(isSameTemplate(markupCode(template(1)), markupCode(template(3)))).to.equal(false);
		expect(isSameTemplate(markupCode(template(1)), '')).to.equal(true);
	});
});

describe('a page’s own loads', () => {
	const q = useQueue();
	const conditions = BUILT_IN_CONDITIONS.find(({ id }) => id === 'phone')!;
	function add(candidate: Parameters<typeof measuredLoad>[0]): number {
		const { db } = q.now;
		const conditionsHash = freezeConditions(db, conditions).hash;
		const stored = { jobId: null, slot: null, conditionId: 'phone', conditionsHash, clientId: null };
		return insertLoad(db, stored, measuredLoad({ url: URL_OF_PAGE, finalUrl: URL_OF_PAGE, conditions, ...candidate }));
	}

	it('are those that ended there, of the page as it is built now', () => {
		const { db } = q.now;
		add({ figures: { lcp: 5000 }, page: page(1) });
		add({ figures: { lcp: 2000 }, page: page(3) });
		add({ figures: { lcp: 911 }, page: page(5), finalUrl: 'https://own.test/sign-in' });
		add({ figures: { lcp: 2200 }, page: page(3) });
		expect(labLoadsOfUrl(db, URL_OF_PAGE, 'phone').map(({ figures }) => figures.lcp)).to.deep.equal([2200, 2000]);
		expect(labFiguresOf(db, URL_OF_PAGE)).to.have.length(1);
		expect(labFiguresOf(db, URL_OF_PAGE)[0]).to.deep.include({ loads: 2 });
	});

	it('are those at the end of a redirect, where the address always leads there', () => {
		const { db } = q.now;
		for (const lcp of [1000, 1100]) add({ figures: { lcp }, finalUrl: 'https://own.test/es/' });
		expect(labLoadsOfUrl(db, URL_OF_PAGE, 'phone')).to.have.length(2);
	});

	it('from before it was noted are read once', () => {
		const { db } = q.now;
		const id = add({ finalUrl: 'https://own.test/sign-in' });
		db.prepare('UPDATE load SET landed = NULL, markup = NULL').run();
		noteLandings(db, [id]);
		expect(loneLoads(db, { clientId: null }, 5, 0)[0]).to.include({ id, landed: 'https://own.test/sign-in' });
	});
});

describe('a watched page that leads elsewhere', () => {
	const q = useQueue();
	const { furnish, read } = useWatches(() => q.now.db);
	const booking = 'https://own.test/booking';
	function listed(id: number, clientId: number) {
		deriveHistory(q.now.db, id);
		const page = pagesOfWatch(q.now.db, id).find(({ url }) => url === booking)!;
		const row = watchList(q.now.db, clientId, 'month').find(({ url }) => url === booking)!;
		const [timeline] = watchedPageView(q.now.db, id, page.id).conditions[0]!.timelines.filter(
			({ metric }) => metric === 'lcp'
		);
		return { row, points: timeline!.points.map(({ middle }) => middle) };
	}

	it('is in trouble and draws no figure of where it led', () => {
		const { id, clientId } = furnish();
		read(id);
		read(id, (url) => (url === booking ? { finalUrl: 'https://own.test/sign-in', figures: { lcp: 911 } } : {}));
		const { row, points } = listed(id, clientId);
		expect(row.state).to.equal('trouble');
		expect(row.conditions[0]).to.include({ lcp: null, band: null });
		expect(points).to.deep.equal([2000]);
		// What was read is not mended.
		for (const { id: notice } of unreadNotices(q.now.db, clientId)) markRead(q.now.db, notice);
		expect(brokenPages(q.now.db, clientId)).to.have.length(1);
		expect(brokenPages(q.now.db, clientId)[0]!.trouble).to.include('sign in');
		read(id);
		deriveHistory(q.now.db, id);
		expect(brokenPages(q.now.db, clientId)).to.deep.equal([]);
	});

	it('from its first reading on is told once, and its figures are its own', () => {
		const { id, clientId } = furnish();
		const led = (url: string) => (url === booking ? { finalUrl: 'https://own.test/es/booking' } : {});
		read(id, led);
		expect(listed(id, clientId).row.state).to.equal('trouble');
		read(id, led);
		const { row, points } = listed(id, clientId);
		expect(row.state).not.to.equal('trouble');
		expect(points).to.deep.equal([2000, 2000]);
	});
});
