/** Pictures, fonts, scripts, steadiness and breakage. Each is worked out by hand. */
import type { FindingCase } from './findingCase';
import {
	BOX,
	document,
	file,
	fontsOf,
	HERO,
	hero,
	image,
	lateOf,
	recordWith,
	script,
	shift,
	stepOf
} from './inspected';
import { recordOf } from './records';

export const CONTENT_CASES = {
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
		clean: recordWith([]),
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
		clean: recordWith([]),
		resource: 'TypeError: x has no y at #'
	},
	'large-page': {
		has: recordWith([], { page: { elements: 2400 } }),
		clean: recordWith([], { page: { elements: 1999, depth: 30, widestParent: { selector: 'ul', children: 80 } } }),
		resource: 'elements'
	}
} satisfies Record<string, FindingCase>;
