/** Rules that need the files themselves, the register of hosts, or a tap. Each is worked out by hand. */
import {
	NO_BODY_FACTS,
	type BodyFacts,
	type FontFacts,
	type Packed,
	type PictureFacts
} from '$core/findings/bodyFacts';
import type { Beside, HostKnown } from '$core/findings/inspection';
import type { TapRecord } from '$core/load/journey/tap';
import type { FindingCase } from './findingCase';
import { file, hero, recordWith } from './inspected';

const BLANK: BodyFacts = { hash: 'a1', bytes: 0, ...NO_BODY_FACTS };

/** The same facts of every file but the document. */
export const factsFor = (facts: Partial<BodyFacts>): Beside => ({
	facts: (url) => (url === 'https://own.test/' ? null : { ...BLANK, ...facts })
});
const bothWays = (has: Partial<BodyFacts>, clean: Partial<BodyFacts>) => ({
	has: factsFor(has),
	clean: factsFor(clean)
});

const packed = (plain: number, gzip: number, brotli: number): Packed => ({ plain, gzip, brotli });
const gzipped = [['content-encoding', 'gzip']] as [string, string][];
const code = (extra = {}) =>
	file('script', '/app.js', { mimeType: 'text/javascript', responseHeaders: gzipped, ...extra });

const picture = (encoded: PictureFacts['encoded'], extra: Partial<PictureFacts> = {}) => ({
	picture: { format: 'jpeg' as const, width: 800, height: 400, isAnimated: false, needed: null, encoded, ...extra }
});
const as = (format: 'jpeg' | 'webp' | 'avif', bytes: number) => ({ format, width: 800, height: 400, bytes });

const font = (extra: Partial<FontFacts>) => ({
	font: {
		family: 'Harbour',
		isDrawn: true,
		signs: 900,
		drawnSigns: 70,
		isIcons: false,
		woff2: 48_000,
		subset: 12_000,
		...extra
	}
});
const harbour = () => file('font', '/harbour.woff2', { mimeType: 'font/woff2' });

const known = (has: Partial<HostKnown>, clean: Partial<HostKnown>) => {
	const hostsOf = (own: Partial<HostKnown>): Beside => ({
		hosts: () => ({ purpose: '', isConfirmed: true, isSeen: true, ...own })
	});
	return { has: hostsOf(has), clean: hostsOf(clean) };
};
const widget = () =>
	recordWith([file('script', 'https://widget.test/box.js'), file('image', 'https://widget.test/i.png')]);

const tap = (state: TapRecord['state'], effectMs: number | null): TapRecord => ({
	selector: '#menu',
	afterMs: 1000,
	atMs: 2000,
	state,
	movedPx: 0,
	effectMs,
	responseMs: null
});

export const BODY_CASES = {
	'text-weakly-packed': {
		has: recordWith([code()]),
		clean: recordWith([code()]),
		// 50 kB went over the wire with gzip; with Brotli they would be 40 kB, or 45 kB: less than 15 %.
		beside: bothWays({ packed: packed(150_000, 50_000, 40_000) }, { packed: packed(150_000, 50_000, 45_000) }),
		resource: 'own.test',
		bytes: 10_000,
		saved: 10_000
	},
	'cookie-weight': {
		// Of 4,000 bytes that go up with two files 3,000 are cookies; then 100 of 1,200.
		has: recordWith([
			file('image', '/a.png', { sentBytes: 2000, cookieBytes: 1500 }),
			file('image', '/b.png', { sentBytes: 2000, cookieBytes: 1500 })
		]),
		clean: recordWith([file('image', '/a.png', { sentBytes: 1200, cookieBytes: 100 })]),
		resource: 'own.test',
		bytes: 3000
	},
	'picture-old-format': {
		has: recordWith([hero()]),
		clean: recordWith([hero()]),
		// Of 200,000 bytes; a fifth is 40,000.
		beside: bothWays(picture([as('webp', 120_000), as('avif', 100_000)]), picture([as('avif', 170_000)])),
		resource: 'own.test/hero.jpg',
		bytes: 100_000,
		saved: 100_000
	},
	'picture-poorly-packed': {
		has: recordWith([hero()]),
		clean: recordWith([hero()]),
		// WebP would save less than a fifth, so that it is no newer format that is missing.
		beside: bothWays(
			picture([as('jpeg', 165_000), as('webp', 165_000)]),
			picture([as('jpeg', 175_000), as('webp', 175_000)])
		),
		resource: 'own.test/hero.jpg',
		bytes: 35_000,
		saved: 35_000
	},
	'animation-as-picture': {
		has: recordWith([file('image', '/waves.gif', { mimeType: 'image/gif' })]),
		clean: recordWith([file('image', '/waves.gif', { mimeType: 'image/gif' })]),
		beside: bothWays(picture([], { format: 'gif', isAnimated: true }), picture([], { format: 'gif' })),
		resource: 'own.test/waves.gif',
		bytes: 50_000
	},
	'picture-same-twice': {
		has: recordWith([file('image', '/a.png'), file('image', '/b.png', { wireBytes: 60_000 })]),
		clean: recordWith([file('image', '/a.png'), file('script', '/b.png')]),
		beside: bothWays({ hash: 'same' }, { hash: 'same' }),
		resource: 'own.test/b.png',
		bytes: 60_000,
		saved: 60_000
	},
	'font-unused-signs': {
		has: recordWith([harbour()]),
		clean: recordWith([harbour()]),
		// 50 kB less the 12 kB of the drawn signs; less 36 kB it is less than 30 %.
		beside: bothWays(font({}), font({ subset: 36_000 })),
		resource: 'own.test/harbour.woff2',
		bytes: 38_000,
		saved: 38_000
	},
	'font-not-drawn': {
		has: recordWith([harbour()]),
		clean: recordWith([harbour()]),
		beside: bothWays(font({ isDrawn: false, drawnSigns: 0, subset: null }), font({})),
		resource: 'own.test/harbour.woff2',
		bytes: 50_000
	},
	'icons-as-font': {
		has: recordWith([harbour()]),
		clean: recordWith([harbour()]),
		// 8 of 900 are fewer than a tenth, 100 are not.
		beside: bothWays(
			font({ isIcons: true, drawnSigns: 8, subset: 2000 }),
			font({ isIcons: true, drawnSigns: 100, subset: 2000 })
		),
		resource: 'own.test/harbour.woff2',
		saved: 48_000
	},
	'not-minified': {
		has: recordWith([code()]),
		clean: recordWith([code()]),
		// Packed with gzip, as the host packs it: 50 kB less 38 kB; less 46 kB it is under a tenth.
		beside: bothWays(
			{ packed: packed(150_000, 50_000, 45_000), minified: packed(90_000, 38_000, 34_000) },
			{ packed: packed(150_000, 50_000, 45_000), minified: packed(140_000, 46_000, 42_000) }
		),
		resource: 'own.test/app.js',
		bytes: 12_000,
		saved: 12_000
	},
	'for-old-browsers': {
		has: recordWith([code()]),
		clean: recordWith([code()]),
		beside: bothWays(
			{ helpers: ['_classCallCheck', '_inherits', 'regeneratorRuntime'] },
			{ helpers: ['_classCallCheck', '_inherits'] }
		),
		resource: 'own.test/app.js'
	},
	'writes-document': {
		has: recordWith([code()]),
		clean: recordWith([code()]),
		beside: bothWays({ writesDocument: true }, {}),
		resource: 'own.test/app.js'
	},
	'press-lost': {
		has: recordWith([], { tap: tap('there', null) }),
		clean: recordWith([], { tap: tap('there', 80) }),
		resource: '#menu'
	},
	'third-party-unconfirmed': {
		has: widget(),
		clean: widget(),
		beside: known({ isConfirmed: false }, {}),
		resource: 'widget.test',
		bytes: 100_000
	},
	'starts-unasked': {
		has: widget(),
		clean: widget(),
		beside: known({ purpose: 'Chat with visitors' }, { purpose: 'Counts visits' }),
		resource: 'widget.test',
		bytes: 100_000
	}
} satisfies Record<string, FindingCase>;
