/** Two share-button plugins with the same four buttons and not quite the same weight. */
import { stylesheet, library } from '../make/code';
import type { Asset } from '../builders/render';

const PLACES = ['Letter', 'Notice board', 'Post card', 'Copy the address'];
const buttons = PLACES.map((place) => `<button type="button" class="share-button">${place}</button>`).join('');

export const SHARE_PLUGINS = {
	row: {
		markup: `<div class="share row">${buttons}</div>`,
		assets: [
			{ path: '/share-row/share.css', type: 'text/css', body: stylesheet('share-row', 6000) },
			{ path: '/share-row/share.js', type: 'text/javascript', body: library('shareRow', 7000, 10) }
		] as Asset[],
		font: null
	},
	column: {
		markup: `<div class="share column">${buttons}</div>`,
		assets: [
			{
				path: '/share-column/share.css',
				type: 'text/css',
				body: `@font-face{font-family:"ShareIcons";src:url(/share-column/icons.woff) format("woff")}.share-button{font-family:"ShareIcons",sans-serif}\n${stylesheet('share-column', 13_000)}`
			},
			{ path: '/share-column/share.js', type: 'text/javascript', body: library('shareColumn', 7400, 10) }
		] as Asset[],
		font: '/share-column/icons.woff'
	}
};
