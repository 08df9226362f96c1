/** Each rule on a record that has it, worked out by hand, and on one that is clean of it. */
import { expect } from 'chai';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import { emptyPage } from '$core/load/record/emptyRecord';
import type { ImageFact, LoadRecord, PageRecord, RequestRecord } from '$core/load/record/record';
import type { Finding, RuleId } from '$core/findings/finding';
import { RULE_IDS } from '$core/findings/finding';
import { findingsOf } from '$core/findings/findings';
import { describeFinding } from '$core/wording/findings';
import { recordOf, requestOf } from '../../support/records';

const [PHONE] = BUILT_IN_CONDITIONS;
type Candidate = Omit<Partial<LoadRecord>, 'figures' | 'page'> & {
	figures?: Partial<LoadRecord['figures']>;
	page?: Partial<PageRecord>;
};

const timing = (parts: Partial<RequestRecord['timing']>): RequestRecord['timing'] => ({
	queue: null,
	dns: null,
	connect: null,
	tls: null,
	send: null,
	wait: null,
	receive: null,
	...parts
});
const document = (extra: Partial<RequestRecord> = {}) =>
	requestOf({
		type: 'document',
		url: 'https://own.test/',
		startMs: 0,
		responseMs: 300,
		endMs: 350,
		wireBytes: 20_000,
		decodedBytes: 60_000,
		timing: timing({ wait: 100 }),
		...extra
	});
const file = (type: string, path: string, extra: Partial<RequestRecord> = {}) =>
	requestOf({
		type,
		url: path.startsWith('http') ? path : `https://own.test${path}`,
		startMs: 320,
		responseMs: 500,
		endMs: 600,
		wireBytes: 50_000,
		decodedBytes: 150_000,
		responseHeaders: [['cache-control', 'max-age=31536000']],
		...extra
	});
const image = (url: string, extra: Partial<ImageFact> = {}): ImageFact => ({
	url,
	selector: 'img.hero',
	naturalWidth: 800,
	naturalHeight: 400,
	shownWidth: 320,
	shownHeight: 160,
	lazy: false,
	roomReserved: true,
	inView: true,
	...extra
});
const recordWith = (requests: RequestRecord[], { page, figures, ...rest }: Candidate = {}): LoadRecord =>
	recordOf({
		conditions: PHONE!,
		requests: [document(), ...requests],
		page: { ...emptyPage('Own'), elements: 400, depth: 9, ...page },
		figures: { ttfb: 300, fcp: 1000, lcp: 1500, ...figures },
		...rest
	});
const foundIn = (record: LoadRecord, rule: RuleId): Finding[] => {
	const { findings, faults } = findingsOf(record);
	expect(faults).to.deep.equal([]);
	return findings.filter((finding) => finding.rule === rule);
};
const HERO = 'https://own.test/hero.jpg';
const lcpOf = (url: string | null, atMs = 1500): LoadRecord['lcp'] => ({
	atMs,
	size: 50_000,
	selector: 'img.hero',
	tag: 'img',
	url,
	box: null,
	text: null
});
const hero = (extra: Partial<RequestRecord> = {}) =>
	file('image', HERO, { mimeType: 'image/jpeg', wireBytes: 200_000, ...extra });
const withLargest = (request: RequestRecord, candidate: Candidate = {}, others: RequestRecord[] = []) =>
	recordWith([request, ...others], { lcp: lcpOf(HERO), ...candidate });
const script = (startMs: number, durationMs: number, layoutMs = 0) => ({
	startMs,
	durationMs,
	blockingMs: 0,
	scripts: [{ url: 'https://own.test/app.js', invoker: 'timer', functionName: 'build', startMs, durationMs, layoutMs }]
});
const shift = (atMs: number, value: number) => ({
	atMs,
	value,
	recentInput: false,
	elements: [{ selector: 'main > p', from: BOX, to: BOX }]
});
const BOX = { x: 0, y: 0, width: 10, height: 10 };

interface Case {
	has: LoadRecord;
	clean: LoadRecord;
	/** Of the finding, by hand. */
	resource: string;
	bytes?: number;
	delay?: number;
	threadMs?: number;
}

const PLAIN = recordWith([]);
const CASES: Record<RuleId, Case> = {
	'server-wait': {
		// 700 ms of waiting in a first byte of 900: 300 more than 400.
		has: recordOf({
			...recordWith([]),
			requests: [document({ timing: timing({ wait: 700 }) })],
			figures: { ttfb: 900 }
		}),
		clean: recordOf({
			...recordWith([]),
			requests: [document({ timing: timing({ wait: 390 }) })],
			figures: { ttfb: 500 }
		}),
		resource: 'own.test/',
		delay: 300
	},
	redirects: {
		has: recordOf({
			requests: [
				document({ url: 'https://own.test/old', redirectTo: 'https://own.test/', startMs: 0, status: 301 }),
				document({ startMs: 250 })
			]
		}),
		// From another site it is no fault of this one.
		clean: recordOf({
			requests: [
				document({ url: 'https://short.example/x', redirectTo: 'https://own.test/' }),
				document({ startMs: 250 })
			]
		}),
		resource: 'own.test/old',
		delay: 250
	},
	'page-cache-miss': {
		has: recordOf({ requests: [document({ responseHeaders: [['x-cache', 'MISS']] })] }),
		clean: recordOf({ requests: [document({ responseHeaders: [['x-cache', 'HIT']] })] }),
		resource: 'own.test/'
	},
	'text-plain-sent': {
		has: recordWith([
			file('script', '/app.js', {
				mimeType: 'text/javascript',
				decodedBytes: 100_000,
				body: { hash: 'a', bytes: 100_000, gzipBytes: 30_000 }
			})
		]),
		clean: recordWith([
			file('script', '/app.js', {
				mimeType: 'text/javascript',
				responseHeaders: [
					['content-encoding', 'br'],
					['cache-control', 'max-age=31536000']
				],
				body: { hash: 'a', bytes: 100_000, gzipBytes: 30_000 }
			})
		]),
		resource: 'own.test/app.js',
		bytes: 70_000
	},
	'short-lifetime': {
		has: recordWith([file('script', '/app.js', { responseHeaders: [['cache-control', 'max-age=3600']] })]),
		clean: recordWith([file('script', '/app.js', { responseHeaders: [] })]),
		resource: 'own.test/app.js',
		bytes: 50_000
	},
	'old-protocol': {
		has: recordWith(Array.from({ length: 7 }, (_, i) => file('image', `/${i}.png`, { protocol: 'http/1.1' }))),
		clean: recordWith(Array.from({ length: 6 }, (_, i) => file('image', `/${i}.png`, { protocol: 'http/1.1' }))),
		resource: 'own.test'
	},
	'style-in-the-way': {
		// Two thirds unused, ended 50 ms before the first paint, 650 ms after the document began to come.
		has: recordWith([
			file('stylesheet', '/look.css', { renderBlocking: 'blocking', endMs: 950, decodedBytes: 90_000, unused: 60_000 })
		]),
		clean: recordWith([
			file('stylesheet', '/look.css', { renderBlocking: 'blocking', endMs: 950, decodedBytes: 90_000, unused: 20_000 })
		]),
		resource: 'own.test/look.css',
		bytes: 33_333,
		delay: 650
	},
	'script-in-the-way': {
		has: recordWith([file('script', '/big.js', { renderBlocking: 'blocking', unused: 100_000 })]),
		clean: recordWith([file('script', '/big.js', { unused: 100_000 })]),
		resource: 'own.test/big.js',
		delay: 300
	},
	'style-chain': {
		has: recordWith([
			file('stylesheet', '/a.css', { endMs: 500 }),
			file('stylesheet', '/b.css', { initiatorUrl: 'https://own.test/a.css', endMs: 800 })
		]),
		clean: recordWith([
			file('stylesheet', '/a.css'),
			file('stylesheet', '/b.css', { initiatorUrl: 'https://own.test/' })
		]),
		resource: 'own.test/b.css',
		delay: 300
	},
	'largest-late-found': {
		// 900 ms after the first byte of the document; one round trip of a phone is 110 ms.
		has: withLargest(hero({ startMs: 1200, endMs: 1400 })),
		clean: withLargest(hero({ startMs: 400 })),
		resource: 'own.test/hero.jpg',
		delay: 900 - PHONE!.network.roundTripMs
	},
	'largest-lazy': {
		has: withLargest(hero(), { page: { images: [image(HERO, { lazy: true })] } }),
		clean: withLargest(hero(), { page: { images: [image(HERO)] } }),
		resource: 'own.test/hero.jpg'
	},
	'largest-without-priority': {
		has: withLargest(hero({ priority: 'Low', startMs: 320, endMs: 1400 }), {}, [
			file('image', '/other.jpg', { wireBytes: 250_000, endMs: 1300 })
		]),
		clean: withLargest(hero({ priority: 'High', startMs: 320, endMs: 1400 }), {}, [
			file('image', '/other.jpg', { wireBytes: 250_000, endMs: 1300 })
		]),
		resource: 'own.test/hero.jpg',
		bytes: 250_000
	},
	'largest-faded-in': {
		// Came at 600, first paint at 1000, painted at 1500: 500 ms, of which 100 may be.
		has: withLargest(hero({ endMs: 600 })),
		clean: withLargest(hero({ endMs: 600 }), { longTasks: [{ startMs: 1000, durationMs: 480 }] }),
		resource: 'own.test/hero.jpg',
		delay: 400
	},
	'connection-late': {
		has: withLargest(hero({ startMs: 320 }), {}, [
			file('stylesheet', 'https://type.test/a.css', {
				renderBlocking: 'blocking',
				startMs: 800,
				endMs: 990,
				timing: timing({ dns: 30, connect: 120 })
			})
		]),
		clean: withLargest(hero({ startMs: 320 }), {}, [
			file('stylesheet', 'https://type.test/a.css', {
				renderBlocking: 'blocking',
				startMs: 330,
				timing: timing({ dns: 30, connect: 120 })
			})
		]),
		resource: 'type.test',
		delay: 150
	},
	'text-hidden': {
		has: recordWith([file('font', '/a.woff2', { endMs: 900 })], {
			page: { fonts: [{ family: 'Harbour', weight: '400', status: 'loaded', display: 'auto' }] }
		}),
		clean: recordWith([file('font', '/a.woff2', { endMs: 900 })], {
			page: { fonts: [{ family: 'Harbour', weight: '400', status: 'loaded', display: 'swap' }] }
		}),
		resource: 'own.test/a.woff2',
		delay: 600
	},
	'picture-too-large': {
		// Shown at 320 x 160 CSS pixels: 800 x 400 on this phone (2.5). 1600 x 800 are four times as many.
		has: recordWith([hero()], { page: { images: [image(HERO, { naturalWidth: 1600, naturalHeight: 800 })] } }),
		clean: recordWith([hero()], { page: { images: [image(HERO)] } }),
		resource: 'own.test/hero.jpg',
		bytes: 200_000
	},
	'picture-without-room': {
		has: recordWith([hero({ endMs: 600 })], {
			page: { images: [image(HERO, { roomReserved: false })] },
			shifts: [shift(650, 0.12)]
		}),
		clean: recordWith([hero({ endMs: 600 })], { page: { images: [image(HERO)] }, shifts: [shift(650, 0.12)] }),
		resource: 'img.hero',
		delay: 0.12
	},
	'picture-early': {
		has: recordWith([hero()], { page: { images: [image(HERO, { inView: false })] } }),
		clean: recordWith([hero()], { page: { images: [image(HERO, { inView: false, lazy: true })] } }),
		resource: 'own.test/hero.jpg',
		bytes: 200_000
	},
	'media-preloaded': {
		has: recordWith([file('media', '/film.mp4', { wireBytes: 900_000 })]),
		clean: recordWith([file('media', '/film.mp4', { wireBytes: 900 })]),
		resource: 'own.test/film.mp4',
		bytes: 900_000
	},
	'font-format': {
		has: recordWith([file('font', '/a.ttf', { mimeType: 'font/ttf' })]),
		clean: recordWith([file('font', '/a.woff2', { mimeType: 'font/woff2' })]),
		resource: 'own.test/a.ttf',
		bytes: 50_000
	},
	'font-many': {
		has: recordWith([], { page: { fonts: fontsOf(5) } }),
		clean: recordWith([], { page: { fonts: fontsOf(4) } }),
		resource: 'Harbour'
	},
	'font-far': {
		has: recordWith([file('font', 'https://type.test/a.woff2')]),
		clean: recordWith([file('font', '/a.woff2')]),
		resource: 'type.test/a.woff2'
	},
	'task-long': {
		has: recordWith([], { longTasks: [{ startMs: 1100, durationMs: 180 }], longFrames: [script(1110, 160)] }),
		clean: recordWith([], { longTasks: [{ startMs: 1100, durationMs: 90 }], longFrames: [script(1110, 80)] }),
		resource: 'own.test/app.js',
		threadMs: 160
	},
	'script-never-run': {
		// 60,000 of 150,000 characters; 50,000 bytes on the wire.
		has: recordWith([file('script', '/app.js', { unused: 60_000 })]),
		clean: recordWith([file('script', '/app.js', { unused: 30_000 })]),
		resource: 'own.test/app.js',
		bytes: 20_000
	},
	'style-never-matched': {
		has: recordWith([file('stylesheet', '/look.css', { unused: 120_000 })]),
		clean: recordWith([file('stylesheet', '/look.css', { unused: 60_000 })]),
		resource: 'own.test/look.css',
		bytes: 40_000
	},
	'library-twice': {
		has: recordWith([
			file('script', '/lib/one.js', { body: { hash: 'same', bytes: 1, gzipBytes: 1 } }),
			file('script', 'https://else.test/one.js', { body: { hash: 'same', bytes: 1, gzipBytes: 1 } })
		]),
		clean: recordWith([
			file('script', '/lib/one.js', { body: { hash: 'one', bytes: 1, gzipBytes: 1 } }),
			file('script', 'https://else.test/one.js', { body: { hash: 'two', bytes: 1, gzipBytes: 1 } })
		]),
		resource: 'else.test/one.js',
		bytes: 50_000
	},
	'style-recalculated': {
		has: recordWith([], { longFrames: [script(1000, 100, 40), script(1200, 100, 30)] }),
		clean: recordWith([], { longFrames: [script(1000, 100, 40)] }),
		resource: 'own.test/app.js',
		threadMs: 70
	},
	'inline-weight': {
		// Half of a document of 60,000; 20,000 bytes on the wire.
		has: recordWith([], { page: { inline: [{ kind: 'script', start: 'var all', bytes: 30_000 }] } }),
		clean: recordWith([], { page: { inline: [{ kind: 'script', start: 'var all', bytes: 9_000 }] } }),
		resource: 'own.test/',
		bytes: 10_000
	},
	'shift-by-font': {
		has: recordWith([file('font', '/a.woff2', { endMs: 700 })], { shifts: [shift(760, 0.05)] }),
		clean: recordWith([file('font', '/a.woff2', { endMs: 100 })], { shifts: [shift(760, 0.05)] }),
		resource: 'main > p',
		delay: 0.05
	},
	'shift-by-picture': {
		has: recordWith([hero({ endMs: 700 })], {
			page: { images: [image(HERO, { roomReserved: false })] },
			shifts: [shift(760, 0.05)]
		}),
		clean: recordWith([hero({ endMs: 700 })], { page: { images: [image(HERO)] }, shifts: [shift(760, 0.05)] }),
		resource: 'main > p',
		delay: 0.05
	},
	'shift-by-insertion': {
		has: recordWith([], { shifts: [shift(760, 0.05)] }),
		clean: recordWith([], { shifts: [shift(760, 0.005)] }),
		resource: 'main > p',
		delay: 0.05
	},
	'slot-empty': {
		has: recordWith([], { page: { emptySlots: [{ selector: '#ad', box: BOX }] } }),
		clean: PLAIN,
		resource: '#ad'
	},
	'step-slow': {
		has: recordWith([], { steps: [stepOf(340)] }),
		clean: recordWith([], { steps: [stepOf(180)] }),
		resource: 'Click #menu',
		delay: 140
	},
	'going-back-slow': {
		has: recordOf({ requests: [document({ responseHeaders: [['cache-control', 'no-store']] })] }),
		clean: recordOf({ requests: [document({ responseHeaders: [['cache-control', 'no-cache']] })] }),
		resource: 'own.test/'
	},
	'third-party-cost': {
		// 50,000 of 120,000 bytes.
		has: recordWith([file('script', 'https://chat.example/c.js'), file('script', '/own.js')]),
		clean: recordWith([file('script', 'https://chat.example/c.js', { wireBytes: 900 }), file('script', '/own.js')]),
		resource: 'chat.example',
		bytes: 50_000
	},
	'works-late': {
		has: recordWith([], { postponed: lateOf(80_000) }),
		clean: recordWith([], { postponed: lateOf(0) }),
		resource: 'postponed',
		bytes: 80_000
	},
	'broken-request': {
		has: recordWith([file('image', '/gone.png', { status: 404 })]),
		clean: recordWith([file('image', '/gone.png', { status: null, failed: 'net::ERR_ABORTED' })]),
		resource: 'own.test/gone.png'
	},
	'console-error': {
		has: recordWith([], { page: { consoleErrors: ['TypeError: x has no y at https://own.test/a.js:12'] } }),
		clean: PLAIN,
		resource: 'TypeError: x has no y at #'
	},
	'large-page': {
		has: recordWith([], { page: { elements: 2400 } }),
		clean: recordWith([], { page: { elements: 1999, depth: 30, widestParent: { selector: 'ul', children: 80 } } }),
		resource: 'elements'
	}
};

function fontsOf(count: number): PageRecord['fonts'] {
	return Array.from({ length: count }, (_, i) => ({
		family: 'Harbour',
		weight: String(100 * (i + 1)),
		status: 'loaded',
		display: 'swap'
	}));
}
function stepOf(inp: number): LoadRecord['steps'][number] {
	return {
		number: 1,
		kind: 'click',
		words: 'Click #menu',
		status: 'ok',
		message: null,
		atMs: 3000,
		durationMs: 10,
		quietMs: inp,
		awaited: false,
		shownMs: null,
		navigated: false,
		requests: 0,
		wireBytes: 0,
		cls: 0,
		inp
	};
}
function lateOf(wireBytes: number): LoadRecord['postponed'] {
	const { figures } = recordOf();
	return {
		fromMs: 0,
		untilMs: 1,
		firstMs: null,
		requests: 3,
		wireBytes,
		decodedBytes: wireBytes,
		scriptMs: 0,
		figuresWith: figures
	};
}

describe('rules of the worklist', () => {
	for (const rule of RULE_IDS)
		it(`${rule}: on a load that has it, at its cost, and not on one that is clean of it`, () => {
			const { has, clean, resource, bytes, delay, threadMs } = CASES[rule];
			const [finding, ...others] = foundIn(has, rule);
			expect(finding, 'found').to.not.equal(undefined);
			expect(others).to.deep.equal([]);
			expect(finding!.resource.key).to.equal(resource);
			if (bytes !== undefined) expect(finding!.cost.bytes).to.equal(bytes);
			if (delay !== undefined) expect(finding!.cost.delay).to.be.closeTo(delay, 1e-9);
			if (threadMs !== undefined) expect(finding!.cost.threadMs).to.equal(threadMs);
			expect(foundIn(clean, rule)).to.deep.equal([]);
			const told = describeFinding(finding!);
			for (const words of [told.title, told.detail, told.doneWhen, ...told.advice])
				expect(words, `${rule}: ${words}`)
					.to.match(/^\S.{8,}$/s)
					.and.not.match(/undefined|NaN|\{/);
			expect(told.advice).to.have.length.of.at.least(1);
		});

	it('speak of bytes from 5 kB, or 1 % of the page, on', () => {
		const small = file('font', '/a.ttf', { mimeType: 'font/ttf', wireBytes: 4999 });
		expect(foundIn(recordWith([small]), 'font-format')).to.deep.equal([]);
		// A page of a megabyte: 1 % are 10 kB.
		const heavy = file('image', '/large.png', { wireBytes: 1_000_000 });
		const nine = file('font', '/a.ttf', { mimeType: 'font/ttf', wireBytes: 9000 });
		expect(foundIn(recordWith([nine, heavy]), 'font-format')).to.deep.equal([]);
	});

	it('go on when one of them throws, which is told as a fault', () => {
		const broken = () => {
			throw new Error('no such thing');
		};
		const { findings, faults } = findingsOf(recordWith([]), [], [broken, () => []]);
		expect(findings).to.deep.equal([]);
		expect(faults).to.deep.equal(['broken: no such thing']);
	});

	it('name a resource by its path without what changes from build to build', () => {
		const [finding] = foundIn(
			recordWith([file('script', '/app.3f2a9c1b.js?v=7', { unused: 60_000 })]),
			'script-never-run'
		);
		expect(finding!.resource).to.deep.include({
			name: 'https://own.test/app.3f2a9c1b.js?v=7',
			key: 'own.test/app.#.js'
		});
	});
});
