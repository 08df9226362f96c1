/** What matters to a client, in words: its targets and the margins of its own. */
import type { Target } from '../clients/client';
import { metricOf, type Margin, type MetricId } from '../metrics/catalogue';
import { formatIn, formatValue } from './format';

/** @param under what the conditions are called; null for all */
export const targetWords = ({ metric, value }: Target, under: string | null): string =>
	`${metricOf(metric).name}, ${under ?? 'all conditions'}: ${formatValue(metric, value)}`;

export function marginWords(metric: MetricId, { absolute, relative }: Margin): string {
	const { name, unit } = metricOf(metric);
	return `${name}: the larger of ${formatIn(unit, absolute)} and ${+(relative * 100).toFixed(1)}\u00a0%`;
}
