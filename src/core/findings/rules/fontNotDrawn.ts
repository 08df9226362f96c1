/** A font that is fetched and drawn nowhere. */
import { sentBytes } from '../bodyFacts';
import { fontRule } from '../fontRule';

export const fontNotDrawn = fontRule('font-not-drawn', (font, request) =>
	font.isDrawn ? null : { saved: sentBytes(request), limit: { most: 0, unit: 'count' } }
);
