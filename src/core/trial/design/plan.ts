/** The plan of a trial: which load comes when. It follows from the design and its seed alone. */
import { hasStages } from './kinds';
import { seededRandom, shuffled } from '../../stats/random';
import type { PlannedLoad, TrialDesign } from '../types';

/**
 * All loads of a trial in the order in which they are run.
 *
 * Side by side: first the warm-ups, then round after round; a round loads every arm once under each of the
 * conditions, the conditions in random order and the arms in random order within each, so that whatever drifts with
 * time falls on all arms alike. Before and after: stage after stage, each like a side-by-side trial of the stage and
 * the reference page.
 */
export function planLoads(design: TrialDesign): PlannedLoad[] {
	const random = seededRandom(design.seed);
	const reference = design.arms.filter((arm) => arm.reference).map((arm) => arm.id);
	const compared = design.arms.filter((arm) => !arm.reference).map((arm) => arm.id);
	const stages = hasStages(design.kind) ? compared.map((id) => [id, ...reference]) : [compared];
	const conditionIds = design.conditions.map((conditions) => conditions.id);
	const plan: PlannedLoad[] = [];
	stages.forEach((armIds, stage) => {
		if (design.settleWithinMs)
			for (const conditionId of conditionIds)
				for (const armId of armIds) plan.push({ armId, conditionId, stage, round: 0, warmup: true, settle: true });
		for (const warmup of [true, false])
			for (let round = 1; round <= (warmup ? design.warmups : design.rounds); round++)
				for (const conditionId of shuffled(conditionIds, random))
					for (const armId of shuffled(armIds, random)) plan.push({ armId, conditionId, stage, round, warmup });
	});
	return plan;
}

/**
 * Rounds added to a plan: the same as a longer plan would have, without those that it had. The orders of the new
 * rounds come from a seed of their own, so that the old ones stay what they were.
 */
export function planMore(design: TrialDesign, from: number, to: number): PlannedLoad[] {
	const longer = planLoads({
		...design,
		seed: (design.seed + Math.imul(from, 0x9e3779b1)) >>> 0,
		rounds: to,
		warmups: 0,
		settleWithinMs: null
	});
	return longer.filter((load) => load.round > from);
}

/** When each load of a plan may begin: rounds spread evenly over the time from `from`. UTC ISO by place in the plan. */
export function startTimes(plan: readonly PlannedLoad[], fromIso: string, spreadMinutes: number): string[] {
	const rounds = Math.max(1, ...plan.filter((load) => !load.warmup).map((load) => load.round));
	const from = Date.parse(fromIso);
	return plan.map((load) =>
		new Date(from + (load.warmup ? 0 : ((load.round - 1) / rounds) * spreadMinutes * 60_000)).toISOString()
	);
}
