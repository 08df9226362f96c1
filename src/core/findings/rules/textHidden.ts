/** Text that is drawn only once its font has come (CSS Fonts 4, `font-display`: the block period). */
import { NO_COST } from '../finding';
import { addressResource, seenIn } from '../inspection';
import type { FindingRule } from '../rule';

/** House. */
const MOST_MS = 100;
const HIDES = new Set(['auto', 'block']);

export const textHidden: FindingRule = ({ requests, record, document }) => {
	const { page, figures } = record;
	const hiding = (page?.fonts ?? []).filter(({ status, display }) => status === 'loaded' && HIDES.has(display));
	if (!hiding.length || !document || figures.fcp === null) return [];
	const styleEnd = Math.max(
		0,
		...requests
			.filter(({ renderBlocking, endMs }) => renderBlocking === 'blocking' && endMs !== null)
			.map(({ endMs }) => endMs!)
	);
	return requests
		.filter(({ type, endMs }) => type === 'font' && endMs !== null)
		.flatMap((font) => {
			const hiddenMs = font.endMs! - Math.max(styleEnd, document.responseMs ?? 0);
			if (hiddenMs <= MOST_MS) return [];
			return [
				{
					rule: 'text-hidden' as const,
					resource: addressResource(font.url),
					cost: { ...NO_COST, metric: 'lcp' as const, delay: record.lcp?.url ? null : Math.round(hiddenMs) },
					evidence: seenIn(font),
					saving: null,
					limit: { most: MOST_MS, unit: 'ms' as const },
					values: { hiddenMs, families: [...new Set(hiding.map(({ family }) => family))].join(', ') }
				}
			];
		});
};
