import { expect } from 'chai';
import { writeFileSync } from 'node:fs';
import type { RequestListener } from 'node:http';
import { join } from 'node:path';
import type { FieldReading } from '$core/field/reading';
import type { Db } from '../../src/lib/server/base/db/connection';
import type { Outward } from '../../src/lib/server/base/outward';
import {
	gatherField,
	findFieldGathering,
	newestEnd,
	requestDueField,
	requestField
} from '../../src/lib/server/rooms/field/gathering';
import { isGatheringField } from '../../src/lib/server/rooms/field/queries/gathering';
import { importReadings } from '../../src/lib/server/rooms/field/importing';
import { askPanel, PanelTrouble } from '../../src/lib/server/rooms/field/panel';
import { saveReading } from '../../src/lib/server/rooms/field/queries/readings';
import { fieldPageView, fieldView } from '../../src/lib/server/rooms/field/view';
import { changePages, pastePages } from '../../src/lib/server/rooms/pages/commands';
import { clientWithSite } from '../support/clients';
import { useQueue } from '../support/queue';
import { rule, serve, type RunningServer } from '../support/world';

/** All of a site, as they are stored. */
const readingsOfSite = (db: Db, siteId: number) =>
	(
		db
			.prepare(
				'SELECT source, device, until_day AS until, metrics FROM field_reading WHERE site_id = ? ORDER BY until_day'
			)
			.all(siteId) as { source: string; device: string; until: string; metrics: string | null }[]
	).map(({ metrics, ...row }) => ({
		...row,
		metrics: metrics === null ? null : (JSON.parse(metrics) as FieldReading['metrics'])
	}));

const UNTIL = '2026-11-20';
const bins = [
	{ from: 0, share: 0.6 },
	{ from: 2500, share: 0.3 },
	{ from: 4000, share: 0.1 }
];
const answerOf = (device: string) => ({
	device,
	window: { from: '2026-10-24', until: UNTIL },
	metrics: { lcp: { p75: 2900, bins }, cls: { p75: 0.02, bins: [{ from: 0, share: 1 }] } }
});

describe('field data from a panel', () => {
	const q = useQueue();
	let server: RunningServer;
	let outward: Outward;
	let mode: 'well' | 'down' | 'key' | 'changed' | 'rate' | 'html' = 'well';
	const asked: string[] = [];
	const panel = { url: 'http://panel.test/readings', key: 'k' };
	const listener: RequestListener = (request, response) => {
		const { searchParams } = new URL(request.url!, 'http://x');
		asked.push(searchParams.get('page') ?? searchParams.get('origin') ?? '');
		const say = (status: number, body: unknown) =>
			response
				.writeHead(status, { 'content-type': 'application/json' })
				.end(typeof body === 'string' ? body : JSON.stringify(body));
		if (mode === 'down') return void say(503, {});
		if (mode === 'key') return void say(403, {});
		if (mode === 'rate') return void say(429, {});
		if (mode === 'html') return void say(200, '<p>hello</p>');
		if (mode === 'changed') return void say(200, { ...answerOf('phone'), metrics: { lcp: { percentile: 1 } } });
		if (searchParams.get('page')?.endsWith('/quiet')) return void say(404, {});
		say(200, answerOf(searchParams.get('device')!));
	};
	let clientId: number;
	let siteId: number;
	before(async () => {
		server = await serve(listener);
		outward = { hostMap: [rule('panel.test', server.port)], trustedKeys: [] };
	});
	after(() => server.close());
	beforeEach(() => {
		({ clientId, siteId } = clientWithSite(q.now.db));
		pastePages(q.now.db, siteId, '/a\n/quiet\n/unchosen');
		const ids = q.now.db.prepare(`SELECT id FROM page WHERE url NOT LIKE '%unchosen'`).pluck().all() as number[];
		changePages(q.now.db, ids, { isChosen: true });
		mode = 'well';
		asked.length = 0;
	});
	const at = () => ({
		panel,
		outward,
		goesOn: () => true,
		persist: <Result>(write: () => Result) => Promise.resolve(write())
	});
	const gather = () => gatherField(q.now.db, clientId, UNTIL, at());

	it('are of the page, or of the whole origin where the page has too few visits, and each row says which', async () => {
		await gather();
		const rows = fieldView(q.now.db, { id: clientId }).rows.map(({ url, device, scope, scopeWords, assessment }) => [
			url.replace('https://own.test', ''),
			device,
			scope,
			scopeWords,
			assessment
		]);
		expect(rows).to.deep.equal([
			['/a', 'phone', 'page', 'this page', 'does-not'],
			['/a', 'desktop', 'page', 'this page', 'does-not'],
			['/quiet', 'phone', 'origin', 'all pages of the site: this one has too few visits', 'does-not'],
			['/quiet', 'desktop', 'origin', 'all pages of the site: this one has too few visits', 'does-not']
		]);
		expect(findFieldGathering(q.now.db, clientId)).to.include({ asked: 6, tooFew: 2, fault: null });
	});

	it('keep the panel’s own percentile and shares from its bins, and are never asked for twice', async () => {
		await gather();
		const page = q.now.value<number>(`SELECT id FROM page WHERE url LIKE '%/a'`);
		const [phone] = fieldPageView(q.now.db, page).devices;
		expect(phone!.newest!.metrics!.lcp!.p75).to.equal(2900);
		phone!.newest!.metrics!.lcp!.shares!.forEach((share, i) => expect(share).to.be.closeTo([0.6, 0.3, 0.1][i]!, 0.005));
		asked.length = 0;
		await gather();
		expect(asked).to.deep.equal([]);
	});

	it('say whether nobody has asked, or nobody answered', async () => {
		const states = () =>
			fieldView(q.now.db, { id: clientId }).rows.map(({ assessment, scopeWords }) => `${assessment}: ${scopeWords}`);
		expect(new Set(states())).to.deep.equal(new Set(['no-data: not asked yet']));
		mode = 'down';
		await gather();
		expect(new Set(states())).to.deep.equal(new Set(['no-data: asked without an answer']));
	});

	it('that are not to be had leave what is there, and say why', async () => {
		await gather();
		const before = readingsOfSite(q.now.db, siteId);
		const faultOf = async (now: typeof mode) => {
			mode = now;
			await gatherField(q.now.db, clientId, '2026-11-21', at());
			return findFieldGathering(q.now.db, clientId)!.fault;
		};
		expect(await faultOf('down')).to.equal('down');
		expect(await faultOf('key')).to.equal('key');
		expect(await faultOf('changed')).to.equal('changed');
		expect(await faultOf('html')).to.equal('changed');
		expect(readingsOfSite(q.now.db, siteId)).to.deep.equal(before);
		// One question shows it, asked again quietly where nobody answers: the others are not asked in vain.
		expect(asked).to.have.length(6 + 3 + 1 + 1 + 1);
		mode = 'well';
		await gatherField(q.now.db, clientId, '2026-11-21', at());
		expect(readingsOfSite(q.now.db, siteId)).to.have.length(2 * before.length);
	});

	it('say when the panel is asked too often', async () => {
		mode = 'rate';
		const trouble = await askPanel(
			{ scope: 'page', url: 'https://own.test/a', device: 'phone', until: UNTIL },
			panel,
			outward
		).then(
			() => null,
			(error: unknown) => error as PanelTrouble
		);
		expect(trouble).to.include({ fault: 'rate', retryAfterS: 20 });
	});

	it('are asked for by jobs: the newest window at once, earlier ones when nothing else is to be done', () => {
		const now = '2026-11-27T09:00:00.000Z';
		expect(newestEnd(now)).to.equal('2026-11-26');
		requestField(q.now.db, clientId, now);
		requestField(q.now.db, clientId, now);
		expect(isGatheringField(q.now.db, clientId)).to.equal(true);
		const jobs = q.now.db.prepare(`SELECT "order" ->> 'until' AS until, priority FROM job ORDER BY id`).all() as {
			until: string;
			priority: number;
		}[];
		expect(jobs).to.have.length(13);
		expect([jobs[0], jobs[1], jobs.at(-1)!.until]).to.deep.equal([
			{ until: '2026-11-26', priority: 10 },
			{ until: '2026-11-19', priority: -10 },
			'2026-09-03'
		]);
	});

	it('are asked for again once a day, of clients that have some', () => {
		const { db } = q.now;
		requestDueField(db, '2026-11-27T09:00:00.000Z');
		expect(isGatheringField(db, clientId)).to.equal(false);
		saveReading(db, siteId, {
			pageId: null,
			device: 'phone',
			source: 'panel',
			from: '2026-10-29',
			until: '2026-11-25',
			metrics: null
		});
		requestDueField(db, '2026-11-27T09:00:00.000Z');
		expect(isGatheringField(db, clientId)).to.equal(true);
	});

	it('come from a table too, of pages that the client has', async () => {
		const file = join(q.now.folder, 'readings.csv');
		const lines = [
			'url;device;date;lcp;inp',
			'https://own.test/a;phone;2026-11-20;2,3 s;180 ms',
			'https://own.test/none;phone;2026-11-20;1;1',
			'https://own.test;desktop;2026-11-20;1900;90'
		];
		writeFileSync(file, lines.join('\n'));
		const result = await importReadings(q.now.db, clientId, file, null);
		expect(result).to.deep.include({ lines: 3, saved: 2 });
		expect(result.skipped.unknown).to.equal(1);
		const readings = readingsOfSite(q.now.db, siteId).map(({ source, device, metrics }) => [
			source,
			device,
			metrics!.lcp!.p75,
			metrics!.inp!.p75
		]);
		expect(readings).to.deep.equal([
			['csv', 'desktop', 1900, 90],
			['csv', 'phone', 2300, 180]
		]);
		writeFileSync(file, 'url;device;date;lcp\nhttps://other.test/;phone;2026-11-20;1000\n');
		const problem = await importReadings(q.now.db, clientId, file, null).catch((error: Error) => error.message);
		expect(problem).to.match(/of no page in this client’s lists: add the pages first/);
	});

	it('are of one source, the page’s own before the origin’s, and tell what they were before', () => {
		const metric = (p75: number) => ({ p75, shares: null, bins: [[0, 1]] as [number, number][] });
		const save = (source: 'panel' | 'visits', pageId: number | null, until: string, lcp: number | null) =>
			saveReading(q.now.db, siteId, {
				pageId,
				device: 'phone',
				source,
				from: until,
				until,
				metrics: lcp === null ? null : { lcp: metric(lcp), cls: metric(0.01) }
			});
		save('panel', null, '2026-11-20', 3000);
		save('panel', 1, '2026-11-20', null);
		save('visits', 1, '2026-10-20', 2000);
		save('visits', 1, '2026-11-19', 2600);
		const rowOf = () => fieldView(q.now.db, { id: clientId }).rows.find(({ key }) => key === '1/phone')!;
		expect(rowOf()).to.include({ scope: 'page', source: 'visits', until: '2026-11-19', assessment: 'does-not' });
		expect(rowOf().earlier).to.deep.include({ until: '2026-10-20', assessment: 'passes' });
		// Bins are for the page's own sheet: a list of many pages is drawn without them.
		expect(rowOf().metrics!.lcp).to.deep.equal({ p75: 2600, shares: null, bins: [] });
		expect(rowOf().trend.map(({ p75 }) => p75)).to.deep.equal([2000, 2600]);
		save('panel', 1, '2026-11-20', 2100);
		expect(rowOf()).to.include({ source: 'panel', assessment: 'passes', earlier: null });
	});
});
