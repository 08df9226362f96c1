/** Fonts by their content: signs that nobody draws, files that nothing is drawn with, icons. */
import type { RequestRecord } from '../../load/record/record';
import { sentBytes, type FontFacts } from '../bodyFacts';
import { NO_COST, type Finding, type Limit, type RuleId } from '../finding';
import { addressResource, seenIn } from '../inspection';
import type { FindingRule } from '../rule';

/** House. */
const MOST_UNUSED = 0.3;
const LEAST_ICONS = 0.1;

interface Found {
	saved: number;
	limit: Limit;
}

const fontRule =
	(rule: RuleId, judge: (font: FontFacts, request: RequestRecord) => Found | null): FindingRule =>
	({ requests, factsOf, leastBytes }) =>
		requests.flatMap((request): Finding[] => {
			const font = request.type === 'font' ? factsOf(request)?.font : null;
			const found = font && judge(font, request);
			if (!found || found.saved < leastBytes) return [];
			return [
				{
					rule,
					resource: addressResource(request.url),
					cost: { ...NO_COST, bytes: found.saved },
					evidence: seenIn(request),
					saving: { bytes: found.saved },
					limit: found.limit,
					values: {
						bytes: sentBytes(request),
						saved: found.saved,
						family: font!.family,
						signs: font!.signs,
						drawn: font!.drawnSigns
					}
				}
			];
		});

const fewIcons = ({ isIcons, drawnSigns, signs }: FontFacts) => isIcons && drawnSigns < signs * LEAST_ICONS;

export const fontUnusedSigns = fontRule('font-unused-signs', (font, request) => {
	if (!font.isDrawn || font.subset === null || fewIcons(font)) return null;
	const saved = sentBytes(request) - font.subset;
	return saved > sentBytes(request) * MOST_UNUSED ? { saved, limit: { most: MOST_UNUSED, unit: 'share' } } : null;
});

export const fontNotDrawn = fontRule('font-not-drawn', (font, request) =>
	font.isDrawn ? null : { saved: sentBytes(request), limit: { most: 0, unit: 'count' } }
);

/** The icons as SVG weigh about what the subset does: as much is left. */
export const iconsAsFont = fontRule('icons-as-font', (font, request) =>
	font.isDrawn && font.subset !== null && fewIcons(font)
		? { saved: sentBytes(request) - font.subset, limit: { most: LEAST_ICONS, unit: 'share' } }
		: null
);
