/** What a slot of a trial asks of the lab. */
import { hasSecrets } from '$core/load/conditions/conditions';
import { bustedUrl } from '$core/trial/design/cold';
import { selectorsOf } from '$core/trial/design/presence';
import { randomUUID } from 'node:crypto';
import type { LoadOrder } from '$core/load/journey/order';
import type { Db } from '../../base/db/connection';
import type { TrialSlot } from '../../base/queue/jobs';
import { isRehearsal, type TrialArm } from '$core/trial/types';
import { findTrial, type Trial } from './trial';
import { setTrialStatus } from './queries/trials';

export interface SlotOrder {
	order: LoadOrder;
	/** For the log. */
	armName: string;
	/** Longest wait for a stable page, ms. */
	settleWithinMs: number;
}

/** The order for a slot, as its trial froze it; the trial runs from now on. */
export function startSlot(db: Db, { trialId, armId, conditionId }: TrialSlot): SlotOrder {
	const trial = findTrial(db, trialId)!;
	const { arms, conditions, steps, settleWithinMs } = trial.design;
	const arm = arms.find(({ id }) => id === armId)!;
	if (trial.status === 'queued') setTrialStatus(db, trialId, 'running');
	return {
		order: {
			url: arm.cold?.how === 'bust' ? bustedUrl(arm.url, arm.cold, randomUUID()) : arm.url,
			purge: arm.cold?.how === 'purge' ? arm.cold : null,
			before: arm.before ?? null,
			conditions: conditions.find(({ id }) => id === conditionId)!,
			steps: arm.steps ?? steps ?? [],
			selectors: selectorsOf(arm.checks ?? []),
			rewriting: rewritingOf(trial, arm, conditionId)
		},
		armName: arm.name,
		settleWithinMs: settleWithinMs ?? 0
	};
}

/**
 * Of a rehearsal all variants pass the rewriting server; of any other trial none. What comes only for somebody who is
 * known is kept in no twin: such pages are answered live.
 */
export function rewritingOf(
	{ id, design }: Pick<Trial, 'id' | 'design'>,
	{ rewrites = [] }: Pick<TrialArm, 'rewrites'>,
	conditionId: string
): LoadOrder['rewriting'] {
	if (!isRehearsal(design)) return null;
	const own = design.conditions.find((conditions) => conditions.id === conditionId)!;
	const isKnown = design.arms.some(({ before }) => before) || hasSecrets(own);
	return { rewrites, twin: design.twin === false || isKnown ? null : `${id}-${conditionId}` };
}
