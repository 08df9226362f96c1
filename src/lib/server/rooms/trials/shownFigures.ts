/** The figures that a middle one stands for. */
import type { MetricId } from '$core/metrics/catalogue';
import { countedLoads } from '$core/trial/judge/counted';
import { isShown } from '$core/trial/judge/shown';
import type { TrialDesign, TrialLoad } from '$core/trial/types';

export type FiguresOf = (condition: string, arm: number, metric: MetricId) => number[];

/** Of the counted loads that a look has reached. */
export function shownFigures(design: TrialDesign, loads: readonly TrialLoad[]): FiguresOf {
	const counted = countedLoads(
		design,
		loads.filter((load) => isShown(design, load))
	);
	return (condition, arm, metric) =>
		counted.flatMap((load) =>
			load.conditionId === condition && load.armId === arm ? (load.figures[metric] ?? []) : []
		);
}
