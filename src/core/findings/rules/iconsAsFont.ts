/** An icon font of which few icons are drawn (practice). */
import { sentBytes } from '../bodyFacts';
import { fewIcons, fontRule, LEAST_ICONS } from '../fontRule';

/** The icons as SVG weigh about what the subset does: as much is left. */
export const iconsAsFont = fontRule('icons-as-font', (font, request) =>
	font.isDrawn && font.subset !== null && fewIcons(font)
		? { saved: sentBytes(request) - font.subset, limit: { most: LEAST_ICONS, unit: 'share' } }
		: null
);
