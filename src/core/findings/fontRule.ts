/** What the rules of fonts share: a file by its content, and what is drawn with it. */
import type { RequestRecord } from '../load/record/record';
import { sentBytes, type FontFacts } from './bodyFacts';
import { NO_COST, type Finding, type Limit, type RuleId } from './finding';
import { addressResource, seenIn } from './inspection';
import type { FindingRule } from './rule';

/** An icon font of which a smaller share is drawn (house). */
export const LEAST_ICONS = 0.1;

interface Found {
	saved: number;
	limit: Limit;
}

export const fontRule =
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

export const fewIcons = ({ isIcons, drawnSigns, signs }: FontFacts) => isIcons && drawnSigns < signs * LEAST_ICONS;
