import { expect } from 'chai';
import { gzipSync } from 'node:zlib';
import type { RequestListener } from 'node:http';
import type { Outward } from '../../src/lib/server/base/outward';
import { fetchOutward, OutwardFault } from '../../src/lib/server/base/outward';
import { findGathering, gatherFor, isGathering, requestGathering } from '../../src/lib/server/rooms/pages/gathering';
import { findProposals } from '../../src/lib/server/rooms/pages/proposals';
import { hostTyped } from '$core/clients/site';
import { changeSite, existingSite } from '../../src/lib/server/rooms/clients/queries/sites';
import { pastePages } from '../../src/lib/server/rooms/pages/commands';
import { listPages } from '../../src/lib/server/rooms/pages/queries/pages';
import { gatherFile, readSitemap } from '../../src/lib/server/rooms/pages/sitemaps';
import { gatheringView } from '../../src/lib/server/rooms/pages/view';
import { leaseJob } from '../../src/lib/server/base/queue/jobs';
import type { Workplace } from '../../src/lib/server/runner/handler';
import { gather } from '../../src/lib/server/runner/handlers/gather';
import { clientWithSite } from '../support/clients';
import { refusal, useQueue } from '../support/queue';
import { rule, serve, startDemoWeb, type RunningServer, type RunningWorld } from '../support/world';

const urlset = (...urls: string[]) => `<urlset>${urls.map((url) => `<url><loc>${url}</loc></url>`).join('')}</urlset>`;
const index = (...urls: string[]) =>
	`<sitemapindex>${urls.map((url) => `<sitemap><loc>${url}</loc></sitemap>`).join('')}</sitemapindex>`;
const html = (body: string) => `<!doctype html><html><body>${body}</body></html>`;

/** Paths of own.test and what they answer. */
const FILES: Record<
	string,
	{ type: string; body: string | Buffer; headers?: Record<string, string>; status?: number }
> = {
	'/index.xml': {
		type: 'text/xml',
		body: index(
			'http://own.test/a.xml',
			'http://own.test/b.xml.gz',
			'http://own.test/gone.xml',
			'http://own.test/index.xml'
		)
	},
	'/a.xml': {
		type: 'text/xml',
		body: urlset('http://own.test/', 'http://own.test/fares?utm_source=map', 'http://other.test/x', 'nonsense')
	},
	'/b.xml.gz': { type: 'application/gzip', body: gzipSync(urlset('http://own.test/b')) },
	'/page.html': { type: 'text/html', body: html('Not here') },
	'/bomb.xml': {
		type: 'text/xml',
		body: gzipSync(Buffer.alloc(60 * 1024 * 1024, 32)),
		headers: { 'content-encoding': 'gzip' }
	},
	'/nested.xml': { type: 'text/xml', body: `<urlset><url>${'<a>'.repeat(400_000)}` },
	'/abyss': { type: 'text/html', body: html('<a href="/under"><div>'.repeat(60_000)) },
	'/robots.txt': { type: 'text/plain', body: 'User-agent: *\nDisallow: /private\n' },
	'/': {
		type: 'text/html',
		body: html(
			'<a href="/fares#top">F</a><a href="/private/x">P</a><a href="https://other.test/">O</a><a href="/away">A</a><a href="/pic.jpg">J</a><a rel="nofollow" href="/hidden">H</a>'
		)
	},
	'/fares': { type: 'text/html', body: html('<a href="/">Home</a><a href="/deep">D</a>') },
	'/deep': { type: 'text/html', body: html('<p>End</p>') },
	'/away': { type: 'text/html', body: '', status: 302, headers: { location: 'http://other.test/x' } },
	'/loop': { type: 'text/html', body: '', status: 302, headers: { location: '/loop' } }
};
const site: RequestListener = ({ url = '', headers }, response) => {
	if (headers.host?.startsWith('other.test'))
		return void response.writeHead(200, { 'content-type': 'text/html' }).end(html('Another'));
	const file = FILES[url];
	if (!file) return void response.writeHead(404, { 'content-type': 'text/html' }).end(html('Nothing'));
	response.writeHead(file.status ?? 200, { 'content-type': file.type, ...file.headers }).end(file.body);
};

describe('gathering pages', () => {
	const q = useQueue();
	let server: RunningServer;
	let outward: Outward;
	let siteId: number;
	before(async () => {
		server = await serve(site);
		outward = { hostMap: [rule('own.test', server.port), rule('other.test', server.port)], trustedKeys: [] };
	});
	after(() => server.close());
	beforeEach(() => (siteId = clientWithSite(q.now.db).siteId));
	const at = () => ({
		outward,
		goesOn: () => true,
		persist: <Result>(write: () => Result) => Promise.resolve(write())
	});
	const urls = () => listPages(q.now.db, { siteId }, 100).map(({ url }) => url.replace(/^https?:\/\/own\.test/, ''));
	const problems = () =>
		findGathering(q.now.db, siteId)!.problems.map(({ where, fault, detail }) => [
			where.replace('http://own.test', ''),
			fault,
			detail
		]);

	it('follows an index, gzip or not, keeps what is the site’s own, and says what could not be read', async () => {
		await gatherFor(q.now.db, siteId, { what: 'sitemap', url: 'http://own.test/index.xml' }, at());
		expect(urls()).to.deep.equal(['/', '/fares', '/b']);
		expect(problems()).to.deep.equal([
			['/gone.xml', 'status', '404'],
			['/index.xml', 'cycle', '']
		]);
		const { words, problems: told } = gatheringView(q.now.db, siteId)!;
		expect(words).to.equal(
			'4 sitemaps: 3 new, 0 known; one address of another host left aside; one line without an address.'
		);
		expect(told[0]).to.equal('http://own.test/gone.xml answered with status 404.');
		await gatherFor(q.now.db, siteId, { what: 'sitemap', url: 'http://own.test/a.xml' }, at());
		expect(findGathering(q.now.db, siteId)!.saved).to.deep.equal({ added: 0, known: 2, over: 0 });
	});

	it('asks robots.txt where a site has no sitemap at the usual place', async () => {
		const before = FILES['/robots.txt']!;
		FILES['/robots.txt'] = { ...before, body: `${before.body as string}Sitemap: http://own.test/a.xml\n` };
		await gatherFor(q.now.db, siteId, { what: 'sitemap', url: 'http://own.test/sitemap.xml' }, at());
		FILES['/robots.txt'] = before;
		expect(urls()).to.deep.equal(['/', '/fares']);
	});

	it('asks by the scheme by which the site was given', () => {
		const { db } = q.now;
		const site = existingSite(db, siteId);
		changeSite(db, siteId, { ...site, scheme: 'http' });
		pastePages(db, siteId, '/new-path\nown.test/other');
		expect(urls()).to.deep.equal(['/new-path', '/other']);
		expect(listPages(db, { siteId }, 9).every(({ url }) => url.startsWith('http://'))).to.equal(true);
		expect(hostTyped('http://shop.test/')).to.deep.equal({ host: 'shop.test', scheme: 'http' });
		expect(hostTyped('shop.test')).to.deep.equal({ host: 'shop.test' });
	});

	it('says of a page, a lost host and a bomb what they are', async () => {
		const faultOf = async (url: string) => {
			await gatherFor(q.now.db, siteId, { what: 'sitemap', url }, at());
			return findGathering(q.now.db, siteId)!.problems[0]?.fault;
		};
		expect(await faultOf('http://own.test/page.html')).to.equal('html');
		expect(await faultOf('http://no-such-host.invalid/sitemap.xml')).to.equal('unresolvable');
		expect(await faultOf('http://127.0.0.1/sitemap.xml')).to.equal('private-address');
		expect(await faultOf('http://own.test/loop')).to.equal('redirect-loop');
		// 60 MB of blanks in 60 kB: read up to the protocol's limit and no further.
		expect(await faultOf('http://own.test/bomb.xml')).to.equal('too-large');
		expect(urls()).to.deep.equal([]);
	});

	it('comes to an end with what is built to have none, and says so', async () => {
		await gatherFor(q.now.db, siteId, { what: 'sitemap', url: 'http://own.test/nested.xml' }, at());
		expect(problems()).to.deep.equal([['/nested.xml', 'broken', '1']]);
		await gatherFor(q.now.db, siteId, { what: 'crawl', url: 'http://own.test/abyss', most: 5 }, at());
		expect(problems()).to.deep.equal([['/abyss', 'too-deep', '']]);
		expect(findGathering(q.now.db, siteId)).to.include({ isDone: true, found: 1 });
		const page = listPages(q.now.db, { siteId }, 10)[0]!;
		expect(page.url).to.equal('http://own.test/abyss');
		await gatherFor(q.now.db, siteId, { what: 'types' }, at());
		expect(problems()).to.deep.equal([['/abyss', 'too-deep', '']]);
	});

	it('that took the lab down again and again is given up: the site is not left as being gathered', () => {
		const id = requestGathering(q.now.db, siteId, { what: 'sitemap', url: 'http://own.test/a.xml' });
		q.now.db.prepare('UPDATE job SET attempts = 5 WHERE id = ?').run(id);
		const job = leaseJob(q.now.db, 'lab')!;
		gather.giveUp(job, { db: q.now.db } as Workplace);
		const { isDone, problems: told } = findGathering(q.now.db, siteId)!;
		expect(isDone).to.equal(true);
		expect(told).to.deep.equal([{ where: 'http://own.test/a.xml', fault: 'given-up', detail: '5' }]);
		expect(gatheringView(q.now.db, siteId)!.problems[0]).to.include('ended the lab 5 times and was given up');
	});

	it('follows links within the site, politely: not what robots.txt forbids, no files, nothing elsewhere', async () => {
		await gatherFor(q.now.db, siteId, { what: 'crawl', url: 'http://own.test/', most: 10 }, at());
		expect(urls().sort()).to.deep.equal(['/', '/deep', '/fares']);
		expect(problems()).to.deep.equal([
			['/away', 'off-site', 'other.test'],
			['/private/x', 'robots', '1']
		]);
	});

	it('stops at the number of pages that was asked for', async () => {
		await gatherFor(q.now.db, siteId, { what: 'crawl', url: 'http://own.test/', most: 1 }, at());
		expect([urls(), findGathering(q.now.db, siteId)!.left!.over]).to.deep.equal([['/'], 3]);
	});

	it('is one job of the lab at a time, done before trials', () => {
		requestGathering(q.now.db, siteId, { what: 'types' });
		expect(isGathering(q.now.db, siteId)).to.equal(true);
		expect(refusal(() => requestGathering(q.now.db, siteId, { what: 'types' }))).to.match(
			/^409 Pages of this site are being gathered/
		);
		q.now.make();
		expect(leaseJob(q.now.db, 'me')).to.deep.include({ kind: 'gather', subject: { kind: 'site', id: siteId } });
	});

	it('reads a file that was given, and says of an index that it must be read by its address', async () => {
		const packed = gzipSync(urlset('http://own.test/x', 'http://other.test/y'));
		expect(await gatherFile('map.xml.gz', packed, ['own.test'])).to.deep.include({
			pages: [{ url: 'http://own.test/x', lastmod: null }],
			left: { foreign: 1, bad: 0, over: 0 }
		});
		const { problems: told } = await gatherFile('map.xml', Buffer.from(index('http://own.test/a.xml')), ['own.test']);
		expect(told).to.deep.equal([{ where: 'map.xml', fault: 'index-file', detail: '1' }]);
		const cut = await readSitemap(packed.subarray(0, packed.length - 12));
		expect(cut.faults).to.deep.equal(['broken']);
	});

	it('asks nobody but the hosts that the operator maps, and public ones', async () => {
		const fault = (url: string) =>
			fetchOutward(url, outward, { withinMs: 5000, mostBytes: 1000 }).then(
				() => '',
				(error: unknown) => (error instanceof OutwardFault ? error.fault : String(error))
			);
		expect(await fault('http://localhost/')).to.equal('private-address');
		expect(await fault('http://own.test:8080/')).to.equal('refused');
		expect(await fault('https://own.test/')).to.equal('refused');
		expect(await fault('file:///etc/passwd')).to.equal('bad-address');
	});
});

describe('gathering pages of the simulated web', function () {
	const q = useQueue();
	let web: RunningWorld;
	before(async () => (web = await startDemoWeb()));
	after(() => web.close());

	it('reads its sitemap over HTTPS, and finds its templates by their markup', async () => {
		const { siteId } = clientWithSite(q.now.db, 'skerry-line.test');
		const outward = { hostMap: web.rules, trustedKeys: [web.keyHash] };
		const at = { outward, goesOn: () => true, persist: <Result>(write: () => Result) => Promise.resolve(write()) };
		await gatherFor(q.now.db, siteId, { what: 'sitemap', url: 'https://skerry-line.test/sitemap.xml' }, at);
		expect(listPages(q.now.db, { siteId }, 99)).to.have.length(13);
		await gatherFor(q.now.db, siteId, { what: 'types' }, at);
		const types = findProposals(q.now.db, siteId).map(({ type, by, pages }) => [type, by, pages.length]);
		expect(types).to.deep.include(['home', 'front-page', 1]);
		expect(types).to.deep.include(['islands', 'address', 3]);
		expect(types).to.deep.include(['contact', 'address', 1]);
		// A certificate that nobody trusts is refused.
		const refused = await fetchOutward(
			'https://skerry-line.test/',
			{ ...outward, trustedKeys: [] },
			{ withinMs: 5000, mostBytes: 1000 }
		).then(
			() => '',
			(error: OutwardFault) => error.fault
		);
		expect(refused).to.equal('certificate');
	});
});
