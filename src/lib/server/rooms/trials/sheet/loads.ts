/** The loads of a trial as its sheet lists and draws them. */
import type { Figures, MetricId } from '$core/metrics/catalogue';
import { countedLoads } from '$core/trial/judge/counted';
import { isShown } from '$core/trial/judge/shown';
import { loadsOffSpeed } from '$core/trial/judge/speedMarks';
import type { TrialDesign } from '$core/trial/types';
import type { LoadSummary } from '../../loads/view';

/** @param drawn the metric whose loads are drawn: beside those to decide on, the only figures that a sheet shows */
export function loadRows(design: TrialDesign, loads: readonly LoadSummary[], drawn: MetricId) {
	const metrics = [...new Set([...design.primary, drawn])];
	const figuresOf = ({ figures }: LoadSummary): Partial<Figures> =>
		Object.fromEntries(metrics.map((metric) => [metric, figures[metric]]));
	const off = loadsOffSpeed(loads);
	const counted = new Set(countedLoads(design, loads));
	return loads.map((load) => ({
		id: load.id,
		armId: load.armId,
		conditionId: load.conditionId,
		stage: load.stage,
		round: load.round,
		warmup: load.warmup,
		status: load.status,
		capped: load.capped,
		reason: load.reason,
		startedAt: load.startedAt,
		labMs: load.labMs,
		excluded: load.excluded,
		disturbed: load.disturbed,
		/** Its figures enter the answer. */
		counts: counted.has(load),
		failedStep: load.failedStep,
		source: load.source,
		// Figures beside each other between looks would be an answer; each load can be opened all the same.
		figures: isShown(design, load) ? figuresOf(load) : {},
		speedOff: off.has(load.id)
	}));
}

export type LoadRow = ReturnType<typeof loadRows>[number];

/** The loads of one metric that are drawn, with their figures. */
export function loadDots(
	design: TrialDesign,
	loads: readonly LoadSummary[],
	metric: MetricId,
	outlying: readonly number[]
) {
	return loadRows(design, loads, metric).flatMap(({ id, armId, conditionId, round, counts, excluded, figures }) => {
		const value = figures[metric] ?? null;
		if (!counts || excluded !== null || value === null) return [];
		return [{ load: id, arm: armId, condition: conditionId, round, value, outlying: outlying.includes(id) }];
	});
}
