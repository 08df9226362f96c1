/** Delivery, and what stands before the paints. Each is worked out by hand. */
import type { FindingCase } from './findingCase';
import { document, file, HERO, hero, image, PHONE, recordWith, timing, withLargest } from './inspected';
import { recordOf } from './records';

export const ARRIVAL_CASES = {
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
		resource: 'own.test',
		bytes: 70_000
	},
	'short-lifetime': {
		has: recordWith([file('script', '/app.js', { responseHeaders: [['cache-control', 'max-age=3600']] })]),
		clean: recordWith([file('script', '/app.js', { responseHeaders: [] })]),
		resource: 'own.test',
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
	}
} satisfies Record<string, FindingCase>;
