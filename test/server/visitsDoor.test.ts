import { expect } from 'chai';
import { quantileOf } from '$core/field/histogram';
import type { Visit } from '$core/field/visit';
import type { Db } from '../../src/lib/server/base/db/connection';
import { histogramOfName, histogramsOver } from '../../src/lib/server/rooms/visits/readings';
import { DAY_MS } from '../../src/lib/server/rooms/visits/queries/store';
import { AddressWeights } from '../../src/lib/server/rooms/visits/weights';
import type { StoredBody } from '../../src/lib/server/rooms/visits/queries/writer';
import { useQueue } from '../support/queue';
import { NOW, TODAY, useVisitDoor } from '../support/visitDoor';
import { aVisit } from '../support/visits';

describe('page views at the visits’ door', () => {
	const q = useQueue();
	const own = useVisitDoor(q);
	const { beacon, send, counted } = own;
	let visits: Db;
	let siteId: number;
	beforeEach(() => ({ visits, siteId } = own.now));

	it('of one address weigh no more than its share of a page’s day, however long it sends', async () => {
		const at = (minute: number) => NOW + minute * 60_000;
		for (let minute = 0; minute < 30; minute++)
			await send(
				beacon(
					Array.from({ length: 20 }, () => aVisit({ metrics: { lcp: 9000 } })),
					{},
					at(minute)
				),
				{
					now: at(minute)
				}
			);
		// Forty for a page on which nobody else was seen.
		expect(counted('/timetable')).to.equal(40);
		const others = Array.from({ length: 1160 }, (_, i) =>
			send(beacon([aVisit({ metrics: { lcp: 1000 } })], {}, at(31)), {
				address: `198.51.${i >> 8}.${i & 255}`,
				now: at(31)
			})
		);
		await Promise.all(others);
		// 61 of 1,221 are 4.996 %, 62 of 1,222 are 5.07 %.
		for (let minute = 32; minute < 60; minute++)
			await send(
				beacon(
					Array.from({ length: 20 }, () => aVisit({ metrics: { lcp: 9000 } })),
					{},
					at(minute)
				),
				{
					now: at(minute)
				}
			);
		const all = counted('/timetable');
		expect(all - 1160).to.equal(61);
		const lcp = histogramOfName(
			visits,
			histogramsOver(visits, { siteId, buckets: ['/timetable'], device: null, from: TODAY, until: TODAY }),
			'lcp'
		);
		expect(quantileOf('lcp', lcp, 0.75)).to.be.below(1100);
	});

	it('of one IPv6 network are one sender’s', () => {
		const weights = new AddressWeights();
		let taken = 0;
		for (let i = 1; i < 200; i++) if (weights.takes('/a', `2001:db8:1:2::${i.toString(16)}`, NOW)) taken++;
		expect(taken).to.equal(40);
		expect(weights.takes('/a', '2001:db8:1:3::1', NOW)).to.equal(true);
		expect(weights.takes('/a', '2001:db8:1:2::1', NOW + DAY_MS)).to.equal(true);
	});

	it('come from the site’s own origins: scheme and port count', async () => {
		for (const origin of ['https://skerry-line.test', 'http://skerry-line.test', 'https://www.skerry-line.test'])
			expect(await send(beacon(), { origin }), origin).to.include({ status: 204 });
		for (const origin of [
			'https://skerry-line.test:8443',
			'http://skerry-line.test:81',
			'ftp://skerry-line.test',
			'chrome-extension://skerry-line.test',
			'https://skerry-line.test/path',
			'https://ana@skerry-line.test',
			'https://skerry-line.test.evil.test',
			'null',
			null
		])
			expect(await send(beacon(), { origin }), String(origin)).to.include({ status: 403 });
	});

	it('keep no query, no fragment and no id of their paths', async () => {
		const paths: [sent: string, kept: string][] = [
			['/timetable?booking=48213&name=Ana', '/timetable'],
			['/timetable#ana@skerry-line.test', '/timetable'],
			['/orders/48213/details', '/orders/*/details'],
			['/u/6f9619ff-8b86-d011-b42d-00c04fc964ff', '/u/*'],
			['/mail/ana@skerry-line.test', '/mail/*'],
			['/mail/ana%40skerry-line.test', '/mail/*'],
			['/reset/dGhpcyBpcyBhIHRva2Vu9', '/reset/*'],
			['/news/winter-timetable-of-the-islands', '/news/winter-timetable-of-the-islands'],
			['/offers/2-for-1', '/offers/2-for-1']
		];
		for (const [path] of paths)
			await send(
				beacon([aVisit({ path, origins: { lcp: { target: 'h1', url: 'https://a.test/b.png?token=secret' } } })])
			);
		const bodies = visits.prepare('SELECT body FROM visit').pluck().all() as string[];
		const kept = bodies.map((body) => JSON.parse(body) as StoredBody);
		expect(kept.map(({ path }) => path)).to.have.members(paths.map(([, path]) => path));
		expect(kept.map(({ origins }) => origins.lcp?.url)).to.deep.equal(paths.map(() => 'https://a.test/b.png'));
	});

	it('are no older figures than the page view: a paint after its end is none', async () => {
		const late: Partial<Visit>[] = [
			{ ageMs: 5000, metrics: { lcp: 9000 } },
			{ ageMs: 5000, metrics: { ttfb: 6500 } },
			{ ageMs: 5000, timings: { menu: 8000 } }
		];
		for (const visit of late)
			expect(await send(beacon([aVisit(visit)])), JSON.stringify(visit)).to.include({ status: 422 });
		// Clocks of a page are rounded.
		expect(await send(beacon([aVisit({ ageMs: 5000, metrics: { lcp: 5400 } })]))).to.include({ status: 204 });
	});
});
