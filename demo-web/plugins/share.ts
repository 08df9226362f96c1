/** Two share-button plugins with the same words and not quite the same weight. */
import { stylesheet, library } from '../make/code';
import type { Asset } from '../builders/render';

const TITLE = 'Pass this page on';
const WAYS = ['By letter', 'To a neighbour', 'On the notice board'];
const buttons = WAYS.map((way) => `<button type="button" class="share-button">${way}</button>`).join('');

export const SHARE_PLUGINS = {
	/** Folded away under their title until somebody opens them. */
	fold: {
		markup: `<details class="share fold"><summary>${TITLE}</summary><div>${buttons}</div></details>`,
		assets: [
			{ path: '/share-fold/fold.css', type: 'text/css', body: stylesheet('share-fold', 4600) },
			{ path: '/share-fold/fold.js', type: 'text/javascript', body: library('shareFold', 9100, 14) }
		] as Asset[],
		font: null
	},
	/** A band across the page, with signs of a font of its own. */
	band: {
		markup: `<div class="share band"><p>${TITLE}</p><div>${buttons}</div></div>`,
		assets: [
			{
				path: '/share-band/band.css',
				type: 'text/css',
				body: `@font-face{font-family:"BandSigns";src:url(/share-band/signs.woff) format("woff")}.share-button{font-family:"BandSigns",sans-serif}\n${stylesheet('share-band', 11_500)}`
			},
			{ path: '/share-band/band.js', type: 'text/javascript', body: library('shareBand', 5300, 8) }
		] as Asset[],
		font: '/share-band/signs.woff'
	}
};
