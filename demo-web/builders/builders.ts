/** The four builders, and the platform underneath them all. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { BuilderName } from '../state/switches';
import { library, stylesheet } from '../make/code';
import { BEHAVIOUR, CART } from './behaviour';
import type { Asset, Builder } from './render';

const require = createRequire(import.meta.url);
export const TITLE_FONT = readFileSync(
	require.resolve('@fontsource-variable/source-serif-4/files/source-serif-4-latin-wght-normal.woff2')
);
const ICON_FONT = readFileSync(
	require.resolve('@fontsource-variable/source-sans-3/files/source-sans-3-latin-wght-normal.woff2')
);

const css = (path: string, body: string): Asset => ({ path, type: 'text/css', body });
const js = (path: string, body: string): Asset => ({ path, type: 'text/javascript', body });

/** What everyone on this platform loads anyway: a DOM library, an emoji script, and the pages' behaviour. */
export const PLATFORM: Asset[] = [
	js('/platform/dom.js', library('dom', 33_000, 20) + BEHAVIOUR),
	js('/platform/emoji.js', library('emoji', 5000, 10))
];

export const CART_SCRIPT = js('/platform/cart.js', CART);

const PLAINSTEM: Builder = {
	name: 'Plainstem',
	styles: [],
	scripts: [],
	files: [],
	head: '',
	dimensions: true,
	section: (inner) => inner,
	element: (inner) => inner
};

const LATHWORK: Builder = {
	name: 'Lathwork',
	styles: [css('/lathwork/frame.css', stylesheet('lathwork', 42_000))],
	scripts: [js('/lathwork/lathwork.js', library('lathwork', 46_000, 120))],
	files: [],
	head: '',
	dimensions: true,
	section: (inner, i) => `<section class="lathwork-row r${i}"><div class="lathwork-column">${inner}</div></section>`,
	element: (inner, kind) => `<div class="lathwork-part lathwork-${kind}">${inner}</div>`
};

/** Many small files, and images without dimensions. */
const PATCHBOARD: Builder = {
	name: 'Patchboard',
	styles: Array.from({ length: 8 }, (_, i) => css(`/patchboard/patch-${i}.css`, stylesheet(`patch${i}`, 8000))),
	scripts: Array.from({ length: 9 }, (_, i) => js(`/patchboard/patch-${i}.js`, library(`patch${i}`, 9000, 30))),
	files: [],
	head: '<style>.pb{display:block}.pb-in{margin:0}</style>',
	dimensions: false,
	section: (inner, i) =>
		`<div class="pb pb-${i}"><div class="pb-in" style="max-width:100%"><div style="display:block">${inner}</div></div></div>`,
	element: (inner, kind) => `<div class="pb-part" style="position:relative" data-part="${kind}">${inner}</div>`
};

/** Deep nesting, an icon font, an animation library, most of it for nothing on this page. */
const MORTISE: Builder = {
	name: 'Mortise',
	styles: [
		css('/mortise/framework.css', stylesheet('mortise', 120_000)),
		css(
			'/mortise/icons.css',
			`@font-face{font-family:"MortiseIcons";src:url(/mortise/icons.woff2) format("woff2")}.mortise-icon{position:absolute;opacity:0}.mortise-icon::before{font-family:"MortiseIcons";content:"\\2022"}\n${stylesheet('mortise-icon', 24_000)}`
		),
		css('/mortise/animations.css', stylesheet('mortise-animation', 36_000))
	],
	scripts: [
		js('/mortise/framework.js', library('mortise', 138_000, 500)),
		js('/mortise/animations.js', library('mortiseAnimations', 84_000, 260)),
		js('/mortise/carousel.js', library('mortiseCarousel', 46_000, 120))
	],
	files: [{ path: '/mortise/icons.woff2', type: 'font/woff2', body: ICON_FONT }],
	head: '<meta name="generator" content="Mortise">',
	dimensions: true,
	section: (inner, i) =>
		`<section class="mortise-section s${i}"><div class="mortise-overlay"><div class="mortise-container"><div class="mortise-row"><div class="mortise-column"><div class="mortise-wrap">${inner}</div></div></div></div></div></section>`,
	element: (inner, kind) =>
		`<div class="mortise-widget mortise-${kind}"><div class="mortise-widget-container"><span class="mortise-icon" aria-hidden="true"></span>${inner}</div></div>`
};

export const ALL_BUILDERS: Record<BuilderName, Builder> = {
	mortise: MORTISE,
	lathwork: LATHWORK,
	patchboard: PATCHBOARD,
	plainstem: PLAINSTEM
};
