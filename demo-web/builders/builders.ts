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
const SIGN_FONT = readFileSync(
	require.resolve('@fontsource-variable/source-sans-3/files/source-sans-3-latin-wght-normal.woff2')
);

const css = (path: string, body: string): Asset => ({ path, type: 'text/css', body });
const js = (path: string, body: string): Asset => ({ path, type: 'text/javascript', body });

/** What everyone on this platform loads anyway: a start script with the pages' behaviour, and one for dates. */
export const PLATFORM: Asset[] = [
	js('/platform/start.js', library('start', 27_000, 18) + BEHAVIOUR),
	js('/platform/dates.js', library('dates', 8200, 12))
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
	styles: [
		css('/lathwork/rows.css', stylesheet('lathwork', 31_000)),
		css('/lathwork/skin.css', stylesheet('skin', 12_500))
	],
	scripts: [js('/lathwork/lathwork.js', library('lathwork', 52_000, 130))],
	files: [],
	head: '',
	dimensions: true,
	section: (inner, i) => `<section class="lathwork-row r${i}">${inner}</section>`,
	element: (inner, kind) => `<div class="lathwork-part lathwork-${kind}">${inner}</div>`
};

/** Many small files, and images without dimensions. */
const PATCHBOARD: Builder = {
	name: 'Patchboard',
	styles: Array.from({ length: 6 }, (_, i) => css(`/patchboard/cord-${i}.css`, stylesheet(`cord${i}`, 10_400))),
	scripts: Array.from({ length: 13 }, (_, i) => js(`/patchboard/jack-${i}.js`, library(`jack${i}`, 6400, 22))),
	files: [],
	head: '<style>.cord{display:flow-root}</style>',
	dimensions: false,
	section: (inner, i) => `<div class="cord" data-cord="${i}"><div style="max-width:100%">${inner}</div></div>`,
	element: (inner, kind) => `<div style="position:relative" data-jack="${kind}">${inner}</div>`
};

/** Deep nesting, a font of signs, scripts for effects and boards, most of it for nothing on this page. */
const MORTISE: Builder = {
	name: 'Mortise',
	styles: [
		css('/mortise/joints.css', stylesheet('mortise', 94_000)),
		css(
			'/mortise/signs.css',
			`@font-face{font-family:"MortiseSigns";src:url(/mortise/signs.woff2) format("woff2")}.mortise-sign{position:absolute;opacity:0}.mortise-sign::before{font-family:"MortiseSigns";content:"\\2022"}\n${stylesheet('mortise-sign', 68_000)}`
		)
	],
	scripts: [
		js('/mortise/joints.js', library('mortise', 112_000, 430)),
		js('/mortise/effects.js', library('mortiseEffects', 71_000, 240)),
		js('/mortise/boards.js', library('mortiseBoards', 58_000, 150)),
		js('/mortise/forms.js', library('mortiseForms', 29_000, 60))
	],
	files: [{ path: '/mortise/signs.woff2', type: 'font/woff2', body: SIGN_FONT }],
	head: '<meta name="generator" content="Mortise">',
	dimensions: true,
	section: (inner, i) =>
		`<div class="mortise-bay b${i}"><div class="mortise-rail"><div class="mortise-stile"><div class="mortise-cheek"><div class="mortise-shoulder">${inner}</div></div></div></div></div>`,
	element: (inner, kind) =>
		`<div class="mortise-tenon"><div class="mortise-peg mortise-${kind}"><span class="mortise-sign" aria-hidden="true"></span>${inner}</div></div>`
};

export const ALL_BUILDERS: Record<BuilderName, Builder> = {
	mortise: MORTISE,
	lathwork: LATHWORK,
	patchboard: PATCHBOARD,
	plainstem: PLAINSTEM
};
