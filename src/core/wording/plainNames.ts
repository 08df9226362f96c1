/** Metric names for people who do not know the trade's abbreviations. */
import type { MetricId } from '../metrics/catalogue';
import { ENGLISH, type Words } from './words';

export function plainName(metric: MetricId, words: Words = ENGLISH): string {
	return words.say(`metric.${metric}`);
}

/** "a, b and c" */
export function listOf(items: readonly string[], words: Words = ENGLISH): string {
	return words.list(items);
}

export function plainList(results: readonly { metric: MetricId }[], words: Words = ENGLISH): string {
	return words.list(results.map((result) => plainName(result.metric, words)));
}
