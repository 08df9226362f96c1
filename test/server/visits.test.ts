import { expect } from 'chai';
import { fork } from 'node:child_process';
import { once } from 'node:events';
import { VIEWS } from '$core/field/tallies';
import { weightOf } from '$core/field/histogram';
import { addDays } from '$core/field/windows';
import { USUAL_VISIT_SETTINGS } from '$core/field/visitSettings';
import { deleteSite } from '../../src/lib/server/rooms/clients/queries/sites';
import type { Db } from '../../src/lib/server/base/db/connection';
import { fieldView } from '../../src/lib/server/rooms/field/view';
import { readingsOf } from '../../src/lib/server/rooms/field/queries/readings';
import { beginVisits, changeVisits } from '../../src/lib/server/rooms/visits/commands';
import { keepOnce } from '../../src/lib/server/rooms/field/visitKeeping';
import { checkPage, liveView } from '../../src/lib/server/rooms/visits/queries/live';
import { putAway } from '../../src/lib/server/rooms/visits/merge';
import { daysOf, histogramOfName, histogramsOver } from '../../src/lib/server/rooms/visits/readings';
import { scriptFor } from '../../src/lib/server/rooms/visits/script';
import { ensureSource } from '../../src/lib/server/rooms/visits/sources';
import { DAY_MS, HOUR_MS, secretOf } from '../../src/lib/server/rooms/visits/queries/store';
import { openVisits } from '../../src/lib/server/rooms/visits/store';
import { tokenOf } from '../../src/lib/server/rooms/visits/token';
import { clientWithSite } from '../support/clients';
import { useQueue } from '../support/queue';
import { NOW, TODAY, useVisitDoor } from '../support/visitDoor';
import { aVisit } from '../support/visits';

describe('visits of real visitors', () => {
	const q = useQueue();
	const own = useVisitDoor(q);
	const { beacon, send, counted, refused } = own;
	let visits: Db;
	let siteId: number;
	let clientId: number;
	let key: string;
	beforeEach(() => ({ visits, siteId, clientId, key } = own.now));

	it('are counted at their page, at the pattern of their path, or elsewhere', async () => {
		const paths = ['/timetable', '/timetable/', '/news/summer', '/unheard-of'];
		const answer = await send(beacon(paths.map((path) => aVisit({ path }))));
		expect(answer).to.deep.equal({ status: 204 });
		expect(counted('/timetable')).to.equal(2);
		expect(counted('/news/*')).to.equal(1);
		expect(counted('/*')).to.equal(1);
		expect(counted()).to.equal(4);
		expect(counted('/timetable', 'lcp')).to.equal(2);
	});

	it('report only the timings and goals that the analyst named', async () => {
		const own = aVisit({ timings: { menu: 120, secret: 5 }, goals: ['booked', 'other'] });
		await send(beacon([own]));
		expect(counted(null, 'timing:menu')).to.equal(1);
		expect(counted(null, 'timing:secret')).to.equal(0);
		expect(counted(null, 'lcp@booked')).to.equal(1);
		const [seen] = liveView(visits, { siteId, settings: USUAL_VISIT_SETTINGS }, NOW).visits;
		expect(seen!.timings).to.deep.equal({ menu: 120 });
		expect(seen!.goals).to.deep.equal(['booked']);
		expect(JSON.stringify(seen)).not.to.include('192.0.2');
	});

	it('sent again later replace what they said before, and are counted once', async () => {
		const own = aVisit({ metrics: { lcp: 2000, cls: 0 } });
		await send(beacon([own]));
		await send(beacon([{ ...own, sending: 2, metrics: { lcp: 2000, cls: 0.4 } }]), { now: NOW + 2 * HOUR_MS });
		expect(counted()).to.equal(1);
		const [day] = daysOf(visits, 'cls', { siteId, buckets: ['/timetable'], from: TODAY, until: TODAY });
		expect([...day!.histogram.values()]).to.deep.equal([1]);
		expect([...day!.histogram.keys()][0]).to.be.above(100);
	});

	it('that somebody sends again are not counted again', async () => {
		const own = beacon();
		await send(own);
		await send(own);
		await Promise.all([send(own), send(own)]);
		expect(counted()).to.equal(1);
		expect(refused()).to.deep.equal({ repeated: 3 });
		// Kept for longer than single page views are known, the script's token is old.
		const answer = await send(own, { now: NOW + 8 * DAY_MS });
		expect(answer).to.include({ status: 403 });
	});

	it('are refused from another host, with another site’s key, without an origin, and counted as refused', async () => {
		expect(await send(beacon(), { origin: 'https://evil.test' })).to.include({ status: 403 });
		expect(await send(beacon(), { origin: null })).to.include({ status: 403 });
		expect(await send(beacon(), { origin: 'null' })).to.include({ status: 403 });
		expect(await send(beacon([aVisit()], { key: 'of-nobody' }))).to.include({ status: 403 });
		expect(await send(beacon([aVisit()], { token: 'x.y' }))).to.include({ status: 403 });
		const other = clientWithSite(q.now.db, 'other.test', 'Other').siteId;
		const foreign = ensureSource(q.now.db, other).key;
		const token = tokenOf(secretOf(visits), foreign, NOW);
		expect(await send(beacon([aVisit()], { key: foreign, token }))).to.include({ status: 403 });
		expect(counted()).to.equal(0);
		expect(refused()).to.deep.equal({ origin: 3, stale: 1 });
		expect(await send(beacon(), { origin: 'https://www.skerry-line.test' })).to.deep.equal({ status: 204 });
	});

	it('that cannot be are refused, one by one, and the rest of the beacon is taken', async () => {
		expect(await send('{')).to.include({ status: 400 });
		expect(await send('x'.repeat(40_000))).to.include({ status: 413 });
		expect(await send(beacon([aVisit({ metrics: { lcp: 9e9 } })]))).to.include({ status: 422 });
		const answer = await send(beacon([aVisit({ ageMs: -1 }), aVisit()]));
		expect(answer.status).to.equal(204);
		expect(counted()).to.equal(1);
		expect(refused()).to.deep.equal({ implausible: 2 });
	});

	it('are shown from midnight on, by the hours of the site’s own clock', async () => {
		await send(beacon([aVisit(), aVisit({ ageMs: 61_000 })]));
		const seen = (timeZone: string) =>
			liveView(visits, { siteId, settings: { ...USUAL_VISIT_SETTINGS, timeZone } }, NOW);
		for (const zone of ['UTC', 'Asia/Kathmandu', 'Pacific/Honolulu']) {
			const { hours } = seen(zone);
			expect(hours[0]!.hour, zone).to.equal(0);
			expect(hours.at(-1)!.hour, zone).to.equal(
				Number(new Date(NOW).toLocaleString('en-GB', { timeZone: zone, hour: '2-digit', hourCycle: 'h23' }))
			);
			expect(hours.at(-1)!.views, zone).to.equal(2);
		}
		// A day later they are yesterday's.
		const next = liveView(visits, { siteId, settings: USUAL_VISIT_SETTINGS }, NOW + 86_400_000);
		expect([next.visits.length, next.kept]).to.deep.equal([0, 2]);
	});

	it('of programs are shown, and not counted', async () => {
		await send(beacon([aVisit()], { automated: true }));
		await send(beacon(), { userAgent: 'Examplebot/2.0' });
		expect(counted()).to.equal(0);
		expect(
			liveView(visits, { siteId, settings: USUAL_VISIT_SETTINGS }, NOW)
				.visits.map(({ fault }) => fault)
				.sort()
		).to.deep.equal(['automated', 'bot']);
		expect(refused()).to.deep.equal({ automated: 1, bot: 1 });
	});

	it('in a flood from one address are turned away, those from others are not', async () => {
		for (let i = 0; i < 20; i++) await send(beacon());
		// A beacon has up to twenty page views: they are counted, not beacons (100 a minute here).
		const full = () => beacon(Array.from({ length: 20 }, () => aVisit({ path: '/news/winter' })));
		for (let i = 0; i < 4; i++) expect(await send(full())).to.include({ status: i < 2 ? 204 : 429 });
		expect(await send(beacon())).to.include({ status: 429, why: 'Too many page views from one address in a minute.' });
		expect(await send(beacon(), { address: '192.0.2.2' })).to.include({ status: 204 });
		expect(await send(beacon(), { now: NOW + 60_000 })).to.include({ status: 204 });
		expect(refused()).to.deep.equal({ flood: 1, weight: 40 });
	});

	it('go by this server’s clock: a visitor’s may be wrong by years', async () => {
		await send(beacon([aVisit({ ageMs: 3 * DAY_MS })]));
		expect(counted()).to.equal(1);
	});

	it('are put away: hours become days with nothing lost, and single page views go', async () => {
		for (const hour of [0, 1, 5])
			await send(beacon([aVisit({ metrics: { lcp: 1000 * (hour + 1) } })]), { now: NOW - hour * HOUR_MS });
		const before = daysOf(visits, 'lcp', { siteId, buckets: null, from: TODAY, until: TODAY });
		while (putAway(visits, NOW + 9 * DAY_MS));
		expect(daysOf(visits, 'lcp', { siteId, buckets: null, from: TODAY, until: TODAY })).to.deep.equal(before);
		expect(visits.prepare('SELECT count(*) FROM hour_histogram').pluck().get()).to.equal(0);
		expect(visits.prepare('SELECT count(*) FROM visit').pluck().get()).to.equal(0);
		// A late sending of a page view whose first one is put away would count it twice.
		const late = aVisit({ sending: 3, ageMs: 8 * DAY_MS });
		const now = NOW + 9 * DAY_MS;
		await send(beacon([late], {}, now), { now });
		expect(counted(null, VIEWS, TODAY, addDays(TODAY, 20))).to.equal(3);
	});

	it('make windows of 28 days beside those of panels, of a page and of the whole origin', async () => {
		const first = Date.parse('2026-10-20T12:00:00Z');
		for (let day = 0; day < 32; day++) {
			const now = first + day * DAY_MS;
			const own = Array.from({ length: 8 }, (_, i) => aVisit({ metrics: { lcp: 1000 + 200 * i, cls: 0.01, inp: 90 } }));
			await send(beacon(own, {}, now), { now });
		}
		const now = first + 32 * DAY_MS;
		await keepOnce(q.now.db, visits, now);
		const [reading] = readingsOf(q.now.db, siteId, 1, 'phone');
		expect(reading).to.include({ source: 'visits', from: '2026-10-24', until: '2026-11-20' });
		// The sixth of eight values is the 75th percentile; bins are within 2 %.
		expect(reading!.metrics!.lcp!.p75).to.be.within(2000 * 0.98, 2000 * 1.02);
		expect(readingsOf(q.now.db, siteId, 1, 'desktop')[0]!.metrics).to.equal(null);
		const row = fieldView(q.now.db, { id: clientId }).rows.find(
			({ pageId, device }) => pageId === 1 && device === 'phone'
		)!;
		expect(row).to.include({ scope: 'page', assessment: 'passes' });
		await keepOnce(q.now.db, visits, now);
		expect(readingsOf(q.now.db, siteId, 1, 'phone')).to.have.length(1);
	});

	it('of a page tell whether its script works, and what is missing and why', async () => {
		await send(beacon([aVisit({ metrics: { lcp: 1000, cls: 0, ttfb: 100 } })]));
		const settings = ensureSource(q.now.db, siteId).settings;
		const check = checkPage(visits, siteId, '/timetable', settings);
		expect(check.seen).to.equal(1);
		const missing = Object.fromEntries(check.metrics.map(({ name, missing: why }) => [name, why]));
		expect(missing).to.deep.equal({
			lcp: null,
			inp: 'no-input',
			cls: null,
			fcp: 'not-reported',
			ttfb: null,
			menu: 'never-set',
			booked: 'no-goal'
		});
		expect(checkPage(visits, siteId, '/nowhere', settings)).to.include({ seen: 0, lastAt: null });
	});

	it('have a script with the site’s settings, and none for a key that nobody has', () => {
		const text = scriptFor(q.now.db, { visits, key, program: 'PROGRAM', now: NOW })!;
		// V8 heeds it in the first line alone.
		const [first, ...rest] = text.split('\n');
		expect(first).to.equal('//# allFunctionsCalledOnLoad');
		const settings = JSON.parse(/^window\.zafraVisits=(.*);PROGRAM$/.exec(rest.join('\n'))![1]!);
		expect(settings).to.deep.include({ key, sampling: 1, timings: ['menu'], goals: ['booked'], handOver: null });
		expect(scriptFor(q.now.db, { visits, key: 'of-nobody', program: 'PROGRAM', now: NOW })).to.equal(null);
	});

	it('of a site that is gone are not those of the next one, whose number may be the same', async () => {
		await send(beacon());
		deleteSite(q.now.db, siteId);
		const next = clientWithSite(q.now.db, 'next.test', 'Next').siteId;
		expect(next).to.equal(siteId);
		beginVisits(q.now.db, visits, next);
		expect(counted()).to.equal(0);
		// Only at the beginning: who asks again loses nothing.
		const now = changeVisits(q.now.db, visits, next, USUAL_VISIT_SETTINGS).key;
		expect(beginVisits(q.now.db, visits, next).key).to.equal(now);
	});

	it('go with their site', async () => {
		await send(beacon());
		deleteSite(q.now.db, siteId);
		await keepOnce(q.now.db, visits, NOW);
		for (const table of ['visit', 'place', 'hour_histogram'])
			expect(visits.prepare(`SELECT count(*) FROM ${table}`).pluck().get(), table).to.equal(0);
	});

	it('that were acknowledged survive a kill in the middle, each counted once', async () => {
		const child = fork('test/support/visitFlood.ts', [q.now.folder, key], { execArgv: ['--import', 'tsx'] });
		const acknowledged = new Set<string>();
		child.on('message', (ids: string[]) => ids.forEach((id) => acknowledged.add(id)));
		while (acknowledged.size < 400) await once(child, 'message');
		child.kill('SIGKILL');
		await once(child, 'exit');
		const again = openVisits(q.now.folder);
		const stored = new Set(again.prepare('SELECT id FROM visit').pluck().all() as string[]);
		expect([...acknowledged].filter((id) => !stored.has(id))).to.deep.equal([]);
		const range = { siteId, buckets: null, device: null, from: '2020-01-01', until: '2030-01-01' };
		expect(weightOf(histogramOfName(again, histogramsOver(again, range), VIEWS))).to.equal(stored.size);
		again.close();
	});
});
