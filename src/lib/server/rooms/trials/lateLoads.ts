/**
 * What a trial asks of each variant once its rounds are done: one patient load and one with an interaction under each
 * of its conditions, so that no answer stands on work that is only put off.
 */
import { rewritingOf } from './orders';
import { isSamePage, hasStages } from '$core/trial/design/kinds';
import { stagesOf } from '$core/trial/design/comparisons';
import type { TrialArm } from '$core/trial/types';
import type { Db } from '../../base/db/connection';
import { insertRequest, requestsOfTrial, type RequestedLoad } from '../loads/requested';
import { lastStage } from './queries/slots';
import { updateDesign } from './queries/trials';
import type { Trial } from './trial';

/**
 * Queue the late loads of the variants that have just been loaded, unless they are there.
 * @returns whether some are still to come
 */
export function awaitLateLoads(db: Db, trial: Trial): boolean {
	const { design, id } = trial;
	if (!design.lateLoads || isSamePage(design.kind)) return false;
	const arms = armsNow(db, trial);
	const requested = design.lateAsked ?? [];
	const missing = arms.filter((arm) => !requested.includes(arm.id));
	if (missing.length) updateDesign(db, trial, { lateAsked: [...requested, ...missing.map((arm) => arm.id)] });
	for (const arm of missing) queueLateLoads(db, trial, arm);
	return requestsOfTrial(db, id).some(
		(request) => isLate(request) && request.status !== 'done' && arms.some((arm) => arm.id === request.armId)
	);
}

const isLate = ({ patience, conditions }: RequestedLoad) => patience || conditions.input === 'nudge';

/** A stage can be asked only while it lasts. */
function armsNow(db: Db, { id, design }: Trial): TrialArm[] {
	const stages = stagesOf(design);
	if (!hasStages(design.kind)) return design.arms.filter((arm) => !arm.reference);
	const stage = stages[lastStage(db, id)];
	return stage ? [stage] : [];
}

/** @returns ids of the jobs */
export function queueLateLoads(db: Db, trial: Trial, arm: TrialArm): number[] {
	const { design } = trial;
	const { id, url, before } = arm;
	const subject = { kind: 'arm', id } as const;
	const rewritten = (conditions: string) => ({ rewriting: rewritingOf(trial, arm, conditions) });
	return design.conditions.flatMap((conditions) => [
		insertRequest(db, subject, {
			url,
			before,
			...rewritten(conditions.id),
			conditions: { ...conditions, input: 'none' },
			steps: [],
			patience: true
		}),
		insertRequest(db, subject, {
			url,
			before,
			...rewritten(conditions.id),
			conditions: { ...conditions, input: 'nudge' },
			steps: []
		})
	]);
}
