/** The plan of a trial: which load comes when. It follows from the design and its seed alone. */
import { seededRandom, shuffled } from '../stats/random';
import type { PlannedLoad, TrialDesign } from './types';

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
	const stages = design.kind === 'before-after' ? compared.map((id) => [id, ...reference]) : [compared];
	const conditionIds = design.conditions.map((conditions) => conditions.id);
	const plan: PlannedLoad[] = [];
	stages.forEach((armIds, stage) => {
		for (const warmup of [true, false])
			for (let round = 1; round <= (warmup ? design.warmups : design.rounds); round++)
				for (const conditionId of shuffled(conditionIds, random))
					for (const armId of shuffled(armIds, random)) plan.push({ armId, conditionId, stage, round, warmup });
	});
	return plan;
}
