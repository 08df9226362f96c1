/** A font of which much is drawn on no audited page. */
import { sentBytes } from '../bodyFacts';
import { fewIcons, fontRule } from '../fontRule';

/** House. */
const MOST_UNUSED = 0.3;

export const fontUnusedSigns = fontRule('font-unused-signs', (font, request) => {
	if (!font.isDrawn || font.subset === null || fewIcons(font)) return null;
	const saved = sentBytes(request) - font.subset;
	return saved > sentBytes(request) * MOST_UNUSED ? { saved, limit: { most: MOST_UNUSED, unit: 'share' } } : null;
});
