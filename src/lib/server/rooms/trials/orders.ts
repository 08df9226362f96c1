/** What a slot of a trial asks of the lab. */
import { bustedUrl } from '$core/trial/design/cold';
import { selectorsOf } from '$core/trial/design/presence';
import { randomUUID } from 'node:crypto';
import type { LoadOrder } from '$core/load/journey/order';
import type { Db } from '../../base/db/connection';
import type { TrialSlot } from '../../base/queue/jobs';
import { findTrial } from './trial';
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
			selectors: selectorsOf(arm.checks ?? [])
		},
		armName: arm.name,
		settleWithinMs: settleWithinMs ?? 0
	};
}
