/** Metric names for people who do not know the trade's abbreviations. */
import type { MetricId } from '../metrics/catalogue';

const PLAIN: Record<MetricId, string> = {
	score: 'score',
	lcp: 'largest paint',
	cls: 'layout shift',
	tbt: 'blocking time',
	wire: 'bytes transferred',
	inp: 'response to input',
	ttfb: 'first byte',
	fcp: 'first paint',
	start: 'start of rendering',
	si: 'Speed Index',
	vc: 'visual completion',
	dcl: 'document ready',
	onload: 'load event',
	full: 'full load',
	decoded: 'bytes decoded',
	requests: 'requests',
	elements: 'page elements',
	depth: 'page depth',
	unusedJs: 'unused script',
	unusedCss: 'unused style'
};

export function plainName(metric: MetricId): string {
	return PLAIN[metric];
}

const LIST = new Intl.ListFormat('en-GB', { type: 'conjunction' });

/** "a, b and c" */
export function listOf(words: readonly string[]): string {
	return LIST.format(words);
}

export function plainList(results: readonly { metric: MetricId }[]): string {
	return listOf(results.map((result) => plainName(result.metric)));
}
