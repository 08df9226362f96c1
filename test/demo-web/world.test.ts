import { expect } from 'chai';
import { createHash } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { parse, type DefaultTreeAdapterMap } from 'parse5';
import { SITES, startingStates, VARIANTS } from '../../demo-web/hosts';
import { library, stylesheet } from '../../demo-web/make/code';
import { PictureMaker } from '../../demo-web/make/pictures';
import { createDemoWeb } from '../../demo-web/server';
import { busyness } from '../../demo-web/site';
import { StateStore } from '../../demo-web/state/store';
import { BUILDERS } from '../../demo-web/state/switches';
import { startDemoWeb, type RunningWorld } from '../support/world';
import { clientOf, PHONE_AGENT, type Reply } from './client';

type Node = DefaultTreeAdapterMap['node'];

function walk(node: Node, visit: (node: Node) => void): void {
	visit(node);
	if ('childNodes' in node) for (const child of node.childNodes) walk(child as Node, visit);
}

function attributesOf(html: string, names: string[]): string[] {
	const found: string[] = [];
	walk(parse(html) as unknown as Node, (node) => {
		if ('attrs' in node) for (const { name, value } of node.attrs) if (names.includes(name)) found.push(value);
	});
	return found;
}

function wordsOf(html: string): string {
	const parts: string[] = [];
	walk(parse(html) as unknown as Node, (node) => {
		const parent =
			'parentNode' in node && node.parentNode && 'tagName' in node.parentNode ? node.parentNode.tagName : '';
		if (node.nodeName === '#text' && 'value' in node && !['script', 'style'].includes(parent)) parts.push(node.value);
	});
	return parts.join(' ').replace(/\s+/g, ' ').trim();
}

describe('simulated web', () => {
	let web: RunningWorld;
	let get: ReturnType<typeof clientOf>;
	before(async () => {
		web = await startDemoWeb();
		const { certificates } = await createDemoWeb({ folder: join(tmpdir(), 'zafra-test-demo-web') });
		get = clientOf(web, certificates.authority);
	});
	after(() => web.close());
	beforeEach(() => reset());

	const reset = () => get('https://switchboard.test/reset', { method: 'POST' });
	const put = (host: string, change: object, query = '') =>
		get(`https://switchboard.test/sites/${host}/state${query}`, { method: 'PUT', body: JSON.stringify(change) });
	const switchOn = async (host: string, change: object) => expect((await put(host, change)).status).to.equal(200);

	it('serves each site over HTTPS with a certificate of its own authority, and redirects plain HTTP', async () => {
		for (const { host } of SITES) {
			expect((await get(`https://${host}/`)).status, host).to.equal(200);
			const plain = await get(`http://${host}/`);
			expect([plain.status, plain.headers.location]).to.deep.equal([301, `https://${host}/`]);
		}
		await switchOn('orrery-hall.test', { https: false });
		expect((await get('http://orrery-hall.test/')).status, 'an old host without HTTPS').to.equal(200);
		const failed = await get('https://orrery-hall.test/').then(
			() => '',
			(error: Error) => error.message
		);
		expect(failed).not.to.equal('');
	});

	it('has no broken link, and HTML that parse5 finds no fault with', async () => {
		const seen = new Set<string>();
		const check = async (address: string, on: string) => {
			// Zafra itself answers there, and stands beside this web.
			if (seen.has(address) || new URL(address).pathname.startsWith('/visit/')) return;
			seen.add(address);
			const reply = await get(address);
			expect(reply.status, `${address} on ${on}`).to.equal(200);
			if (!String(reply.headers['content-type']).startsWith('text/css')) return;
			for (const [, inner] of reply.text.matchAll(/url\(([^)]+)\)/g))
				expect((await get(new URL(inner!, address).href)).status, inner).to.equal(200);
		};
		await Promise.all(
			[...startingStates()].map(async ([host]) => {
				const sitemap = (await get(`https://${host}/sitemap.xml`)).text;
				expect(XMLValidator.validate(sitemap)).to.equal(true);
				const { urlset } = new XMLParser({ isArray: (name) => name === 'url' }).parse(sitemap) as {
					urlset: { url: { loc: string }[] };
				};
				expect(urlset.url.length).to.be.at.least(2);
				// A variant shows the same pages as its site, with something switched.
				const pages = host in VARIANTS ? urlset.url.slice(0, 2) : urlset.url;
				for (const { loc } of pages) {
					const { text, status } = await get(loc);
					expect(status, loc).to.equal(200);
					const faults: string[] = [];
					parse(text, { onParseError: (error) => faults.push(error.code) });
					expect(faults, loc).to.deep.equal([]);
					for (const link of attributesOf(text, ['href', 'src']))
						if (!link.startsWith('#') && !link.startsWith('data:')) await check(new URL(link, loc).href, loc);
				}
			})
		);
		expect(seen.size).to.be.above(120);
	});

	it('shows the same words whatever builder renders them, deeper or less deep', async () => {
		const words = new Map<string, string>();
		const sizes = new Map<string, number>();
		for (const builder of BUILDERS) {
			await switchOn('skerry-line.test', { builder });
			const { text } = await get('https://skerry-line.test/timetable');
			words.set(builder, wordsOf(text));
			sizes.set(builder, text.length);
		}
		expect(new Set(words.values()).size).to.equal(1);
		expect(words.get('plainstem')).to.include('Sailings on Sunday evening');
		expect(sizes.get('mortise')).to.be.above(sizes.get('plainstem')! * 1.2);
	});

	/** Bytes that a page and what it names directly put on the wire. */
	async function weigh(url: string): Promise<number> {
		const page = await get(url);
		const files = attributesOf(page.text, ['src']).concat(
			[...page.text.matchAll(/<link rel="stylesheet" href="([^"]+)"/g)].map((match) => match[1]!)
		);
		const replies = await Promise.all(files.map((file) => get(new URL(file, url).href)));
		return [page, ...replies].reduce((sum, reply) => sum + reply.wire.length, 0);
	}

	it('the heaviest builder puts about nine times the bytes of the leanest on the wire', async () => {
		const [heavy, lean] = await Promise.all([
			weigh('https://bench.mortise.test/'),
			weigh('https://bench.plainstem.test/')
		]);
		expect(heavy / lean).to.be.within(8, 10);
	});

	it('compresses, caches and names the state’s version as switched', async () => {
		const css = 'https://skerry-line.test/look.css';
		const packed = await get(css);
		expect(packed.headers).to.include({ 'content-encoding': 'gzip', 'cache-control': 'public, max-age=31536000' });
		expect((await get(css, { headers: { 'if-none-match': packed.headers.etag! } })).status).to.equal(304);
		await switchOn('skerry-line.test', { compression: false, httpCaching: false });
		const loose = await get(css);
		expect(loose.headers['content-encoding']).to.equal(undefined);
		expect(loose.headers['cache-control']).to.equal('no-store');
		expect(loose.wire.length).to.be.above(packed.wire.length);
		expect(loose.text).to.equal(packed.text);
		expect(Number(loose.headers['x-world-version'])).to.be.above(Number(packed.headers['x-world-version']));
	});

	it('Larder: slow first hit per page and device class, then from its cache; two caches spoil it', async () => {
		await switchOn('skerry-line.test', { larder: 'pages' });
		const page = 'https://skerry-line.test/timetable';
		const asPhone = { headers: { 'user-agent': PHONE_AGENT } };
		const states = (reply: Reply) => reply.headers['x-cache'];
		expect(
			[await get(page), await get(page), await get(page, asPhone), await get(page, asPhone)].map(states)
		).to.deep.equal(['MISS', 'HIT', 'MISS', 'HIT']);
		const hit = await get(page);
		expect(hit.headers.age).to.match(/^\d+$/);
		expect((await get(page, { headers: { 'if-none-match': hit.headers.etag! } })).status).to.equal(304);
		await switchOn('skerry-line.test', { secondCache: true });
		const contended = [];
		for (let i = 0; i < 6; i++) contended.push(states(await get(page)));
		expect(contended.filter((state) => state === 'MISS').length).to.be.at.least(3);
	});

	it('Larder minifies files at its second level; its option joins scripts', async () => {
		const scripts = async () =>
			[...(await get('https://skerry-line.test/')).text.matchAll(/<script src="([^"]+)"/g)]
				.map((match) => match[1]!)
				.filter((src) => src.startsWith('/'));
		const loose = (await get('https://skerry-line.test/lathwork/lathwork.js')).text.length;
		await switchOn('skerry-line.test', { larder: 'pages-and-files' });
		expect((await get('https://skerry-line.test/lathwork/lathwork.js')).text.length).to.be.below(loose * 0.85);
		expect((await scripts()).length).to.be.above(1);
		await switchOn('skerry-line.test', { larderJoins: true });
		expect(await scripts()).to.deep.equal(['/larder/joined.js']);
	});

	it('Shrinkery: lighter formats, right sizes, late loading', async () => {
		const image = async () => {
			const { text } = await get('https://pellows-seed-house.test/seed');
			const tag = /<img [^>]+>/.exec(text)![0];
			const src = /src="([^"]+)"/.exec(tag)![1]!;
			return {
				tag,
				bytes: (await get(`https://pellows-seed-house.test${src}`)).wire.length,
				type: src.split('.').pop()
			};
		};
		const off = await image();
		await switchOn('pellows-seed-house.test', { shrinkery: 'format' });
		const gentle = await image();
		await switchOn('pellows-seed-house.test', { shrinkery: 'size' });
		const firm = await image();
		expect([off.type, gentle.type, firm.type]).to.deep.equal(['jpg', 'webp', 'webp']);
		expect(gentle.bytes).to.be.below(off.bytes);
		expect(firm.bytes).to.be.below(gentle.bytes / 2);
		expect(firm.tag).to.include('loading="lazy"');
	});

	it('the two share plugins show the same and do not weigh the same', async () => {
		const weights: number[] = [];
		const words: string[] = [];
		for (const share of ['fold', 'band']) {
			await switchOn('orrery-hall.test', { share });
			words.push(wordsOf((await get('https://orrery-hall.test/night')).text));
			weights.push(await weigh('https://orrery-hall.test/night'));
		}
		expect(words[0]).to.equal(words[1]);
		expect(weights[0]).not.to.equal(weights[1]);
	});

	it('third parties come, are late, or never answer', async () => {
		const tags = async () => (await get('https://skerry-line.test/')).text;
		expect(await tags()).not.to.include('parlour-bell.test');
		await switchOn('skerry-line.test', { chat: 'slow', ads: 'half-filled', fonts: 'blocking', shareCounts: 'refused' });
		const html = await tags();
		expect(html).to.include('https://parlour-bell.test/bell.js?mode=slow').and.include('class="ad-slot reserved"');
		expect(html, 'a port that nobody listens on').to.include('https://passalong.test:9/counts.js');
		expect((await get('https://serifhouse.test/fonts.css?mode=blocking')).text).not.to.include('font-display');
		expect((await get('https://serifhouse.test/fonts.css?mode=normal')).text).to.include('font-display');
		const asked = performance.now();
		await get('https://parlour-bell.test/bell.js?mode=slow');
		expect(performance.now() - asked, 'it really waits').to.be.above(3000);
		expect((await get('https://stilewatch.test/hit', { method: 'POST', body: '{}' })).status).to.equal(204);
	});

	it('a CDN has a host of its own; a preview shows what is staged until it is published', async () => {
		await switchOn('skerry-line.test', { cdn: true });
		const html = (await get('https://skerry-line.test/')).text;
		expect(html).to.include('https://cdn.skerry-line.test/look.css');
		expect((await get('https://cdn.skerry-line.test/look.css')).headers['x-served-by']).to.equal('cdn');
		await put('skerry-line.test', { chat: 'normal' }, '?staged=yes');
		const shows = async (host: string) => (await get(`https://${host}/`)).text.includes('parlour-bell.test');
		expect([await shows('preview.skerry-line.test'), await shows('skerry-line.test')]).to.deep.equal([true, false]);
		await get('https://switchboard.test/sites/skerry-line.test/publish', { method: 'POST' });
		expect(await shows('skerry-line.test')).to.equal(true);
	});

	it('a bad change is refused in words and changes nothing', async () => {
		const state = async () =>
			JSON.parse((await get('https://switchboard.test/sites/skerry-line.test/state')).text) as { version: number };
		const before = await state();
		const wrong = await put('skerry-line.test', { larder: 'enormous', chat: 'normal', colour: 'red', hour: 24 });
		expect(wrong.status).to.equal(422);
		const { error } = JSON.parse(wrong.text) as { error: { issues: { path: string; message: string }[] } };
		expect(error.issues.map((issue) => issue.path)).to.deep.equal(['larder', 'colour', 'hour']);
		expect(error.issues[0]!.message).to.include('pages-and-files');
		expect(
			(await get('https://switchboard.test/sites/skerry-line.test/state', { method: 'PUT', body: '{oops' })).status
		).to.equal(400);
		expect((await put('nobody.test', {})).status).to.equal(404);
		expect((await get('https://switchboard.test/sites/skerry-line.test/state', { method: 'DELETE' })).status).to.equal(
			405
		);
		expect(await state()).to.deep.equal(before);
		expect((await get('https://switchboard.test/')).text).to.include('Parlour Bell, the chat');
	});

	it('keeps the switchboard’s state over a restart', () => {
		const folder = mkdtempSync(join(tmpdir(), 'zafra-state-'));
		const file = join(folder, 'state.json');
		const store = new StateStore(startingStates(), file);
		store.change('skerry-line.test', { chat: 'normal' }, 'published');
		const again = new StateStore(startingStates(), file);
		expect(again.published('skerry-line.test').chat).to.equal('normal');
		expect(again.version).to.equal(store.version);
		again.reset();
		expect(new StateStore(startingStates(), file).published('skerry-line.test').chat).to.equal('absent');
		rmSync(folder, { recursive: true });
	});

	it('an unknown host hears which hosts there are', async () => {
		const { status, text } = await get('http://who-is-this.test/');
		expect(status).to.equal(404);
		expect(text).to.include('skerry-line.test').and.include('truth.test');
	});

	it('is the same every time: code and pictures by their hash', async () => {
		const hash = (bytes: Buffer | string) => createHash('sha256').update(bytes).digest('hex');
		expect(hash(library('lathwork', 46_000, 120))).to.equal(hash(library('lathwork', 46_000, 120)));
		expect(hash(stylesheet('mortise', 1000))).not.to.equal(hash(stylesheet('lathwork', 1000)));
		const folders = [0, 1].map(() => mkdtempSync(join(tmpdir(), 'zafra-pictures-')));
		const options = {
			width: 300,
			height: 200,
			palette: ['#9db8c4', '#54707a', '#123f52'],
			scene: 'sea',
			format: 'jpeg',
			quality: 80
		} as const;
		const [one, two] = await Promise.all(folders.map((folder) => new PictureMaker(folder).get('same', options)));
		expect(hash(one!)).to.equal(hash(two!));
		expect(one!.length, 'grain compresses like a photograph').to.be.above(8000);
		folders.forEach((folder) => rmSync(folder, { recursive: true }));
	});

	it('repeats its jitter with its seed', async () => {
		const { ServerClock } = await import('../../demo-web/make/timing');
		const row = (seed: number) => {
			const clock = new ServerClock(seed);
			return Array.from({ length: 5 }, () => clock.next('a.test', { middleMs: 100, spread: 0.1 }));
		};
		expect(row(3)).to.deep.equal(row(3));
		expect(row(3)).not.to.deep.equal(row(4));
	});

	it('a server that sleeps lets its first visitor wait, and evenings are busier on shared machines', async () => {
		await switchOn('skerry-line.test', { coldStart: true });
		const asked = performance.now();
		await get('https://skerry-line.test/contact');
		expect(performance.now() - asked, 'it really waits').to.be.above(1500);
		expect(busyness(20, 'shared')).to.be.above(2 * busyness(10, 'shared'));
		expect(busyness(20, 'dedicated')).to.be.below(1.2);
	});

	it('faults are as named', async () => {
		expect((await get('https://faults.test/status/503')).status).to.equal(503);
		expect((await get('https://faults.test/chain?n=2')).headers.location).to.equal('/chain?n=1');
		expect((await get('https://faults.test/authentication')).status).to.equal(401);
		expect(
			(
				await get('https://faults.test/authentication', {
					headers: { authorization: `Basic ${Buffer.from('guest:guest').toString('base64')}` }
				})
			).status
		).to.equal(200);
		expect(
			await get('https://faults.test/truncated').then(
				() => 'whole',
				(error: Error) => error.message
			)
		).not.to.equal('whole');
		expect((await get('https://faults.test/huge')).text.match(/<img/g)).to.have.length(1999);
		expect((await get('https://faults.test/')).text).to.include('cookie');
	});
});
