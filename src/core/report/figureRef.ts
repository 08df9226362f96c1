/** Figures of a report by where they come from: `trial/3/phone/lcp/2/shift`. */
import { isMetricId, type MetricId } from '../metrics/catalogue';

/** What of a comparison is meant: a middle figure, the shift, its interval, or the verdict's word. */
export const FIGURE_PARTS = ['baseline', 'variant', 'shift', 'interval', 'verdict'] as const;
export type FigurePart = (typeof FIGURE_PARTS)[number];

export interface FigureRef {
	trial: number;
	/** Id of the conditions. */
	condition: string;
	metric: MetricId;
	/** Id of the variant; 0 for all pages of a sweep together. */
	arm: number;
	part: FigurePart;
}

export function formatRef({ trial, condition, metric, arm, part }: FigureRef): string {
	return ['trial', trial, encodeURIComponent(condition), metric, arm, part].join('/');
}

/** @returns null for what names no figure */
export function parseRef(text: string): FigureRef | null {
	const [source, trial, condition, metric, arm, part, ...rest] = text.split('/');
	if (source !== 'trial' || rest.length || !condition || !metric || !isMetricId(metric)) return null;
	if (!/^\d+$/.test(trial ?? '') || !/^\d+$/.test(arm ?? '')) return null;
	if (!FIGURE_PARTS.includes(part as FigurePart)) return null;
	return {
		trial: Number(trial),
		condition: decoded(condition),
		metric,
		arm: Number(arm),
		part: part as FigurePart
	};
}

function decoded(text: string): string {
	try {
		return decodeURIComponent(text);
	} catch {
		return text;
	}
}
