/** The noise floor in figures. */
import { metricOf, type MetricId } from '../metrics/catalogue';
import { formatIn } from './format';

/** "Score 13.0, LCP 584 ms": of the metrics that have one. */
export function wordFloors(floors: Partial<Record<MetricId, number>>, metrics: readonly MetricId[]): string {
	return metrics
		.flatMap((metric) => {
			const { short, unit } = metricOf(metric);
			const floor = floors[metric];
			return floor === undefined ? [] : [`${short} ${formatIn(unit, floor, true)}`];
		})
		.join(', ');
}
