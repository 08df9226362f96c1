/** What a trial judges: all metrics, those of steps only where its loads have steps. */
import { isStepMetric, METRICS, type Metric } from '../../metrics/catalogue';
import type { TrialDesign } from '../types';

export function metricsOf({ steps, primary }: Pick<TrialDesign, 'steps' | 'primary'>): readonly Metric[] {
	if (steps?.length) return METRICS;
	return METRICS.filter(({ id }) => !isStepMetric(id) || primary.includes(id));
}
