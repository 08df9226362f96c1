/** What a trial judges: all metrics, those of steps only where its loads have steps. */
import { isStepMetric, METRICS, type Metric } from '../../metrics/catalogue';
import type { TrialDesign } from '../types';

export function metricsOf({
	steps,
	arms,
	primary
}: Pick<TrialDesign, 'steps' | 'arms' | 'primary'>): readonly Metric[] {
	if (steps?.length || arms.some((arm) => arm.steps?.length)) return METRICS;
	return METRICS.filter(({ id }) => !isStepMetric(id) || primary.includes(id));
}
