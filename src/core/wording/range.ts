/** A middle figure with the least and the most of those that it stands for. */
import { metricOf, type MetricId } from '../metrics/catalogue';
import { formatDuration, formatIn, formatValue } from './format';
import { ENGLISH, type Words } from './words';

/** "84, 79 to 88 in 8"; empty without figures. */
export function wordRange(metric: MetricId, figures: readonly number[], words: Words = ENGLISH): string {
	if (!figures.length) return '';
	const sorted = [...figures].sort((a, b) => a - b);
	const half = sorted.length / 2;
	const middle = sorted.length % 2 ? sorted[Math.floor(half)]! : (sorted[half - 1]! + sorted[half]!) / 2;
	const [least, most] = [sorted[0]!, sorted.at(-1)!];
	const told = formatValue(metric, middle);
	if (formatValue(metric, least) === formatValue(metric, most))
		return words.say('range.same', { middle: told, n: sorted.length });
	return words.say('range.some', {
		middle: told,
		least: formatIn(metricOf(metric).unit, least),
		most: formatIn(metricOf(metric).unit, most),
		n: sorted.length
	});
}

/** "79 to 88"; empty where all print alike. @param ends of the figures, in either order */
export function wordSpan(metric: MetricId | null, [one, other]: readonly number[], words: Words = ENGLISH): string {
	if (one === undefined || other === undefined) return '';
	const told = (value: number) => (metric === null ? formatDuration(value) : formatIn(metricOf(metric).unit, value));
	const [least, most] = [told(Math.min(one, other)), told(Math.max(one, other))];
	return least === most ? '' : words.say('range.span', { least, most });
}
