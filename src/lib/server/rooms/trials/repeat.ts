/** A trial once more: the same design and frozen conditions, new loads, so that both answers can be seen. */
import { randomInt } from 'node:crypto';
import * as v from 'valibot';
import { hasStages } from '$core/trial/design/kinds';
import { isLog } from '$core/trial/design/log';
import type { TrialArm, TrialDesign } from '$core/trial/types';
import type { Db } from '../../base/db/connection';
import { startTrial } from './commands';
import { findTrial, type Trial } from './trial';
import { insertTrial } from './queries/trials';
import { NotPossible } from '../../base/refusal';

/** Hours after which a trial is made once more: what optimisers do not keep up, and what caches must first learn. */
export const AGES = [1, 24, 168] as const;

const HOUR_MS = 3_600_000;

export const RepeatRequest = v.object({
	/** Hours from now; none for a draft that is started by hand. */
	ages: v.optional(
		v.pipe(
			v.array(
				v.pipe(
					v.number('An age is a number of hours.'),
					v.minValue(0.1, 'An age is more than six minutes.'),
					v.maxValue(2160, 'An age is at most 90 days.')
				)
			),
			v.maxLength(10, 'At most ten ages.')
		),
		[]
	)
});

/**
 * The same trial at some ages, queued already.
 * @returns ids, youngest first
 */
export function repeatByAge(db: Db, id: number, ages: readonly number[] = AGES, now = Date.now()): number[] {
	const trial = existingTrial(db, id);
	if (hasStages(trial.design.kind))
		throw new NotPossible(
			409,
			'A before-and-after trial cannot be made again: its change is done. Repeat it as variants side by side.'
		);
	if (trial.status !== 'done' && trial.status !== 'stopped')
		throw new NotPossible(409, 'Only a trial that has ended is repeated by age.');
	return db.transaction(() =>
		[...ages]
			.sort((a, b) => a - b)
			.map((hours) => {
				const repeat = repeatTrial(db, id, new Date(now + hours * HOUR_MS).toISOString());
				startTrial(db, repeat);
				return repeat;
			})
	)();
}

function existingTrial(db: Db, id: number): Trial {
	const trial = findTrial(db, id);
	if (!trial) throw new NotPossible(404, `There is no trial ${id}.`);
	return trial;
}

/** Of a log the page as it was, from which it begins anew. */
function armsAgain(design: TrialDesign): Omit<TrialArm, 'id'>[] {
	const arms = isLog(design) ? design.arms.filter(({ baseline, reference }) => baseline || reference) : design.arms;
	return arms.map(({ id: _id, ...arm }) => arm);
}

/** @param notBefore UTC ISO; null for any time @returns the id of the new draft */
export function repeatTrial(db: Db, id: number, notBefore: string | null = null): number {
	const trial = existingTrial(db, id);
	const { clientId, question, design } = trial;
	return insertTrial(db, {
		clientId,
		question,
		repeatOf: trial.repeatOf ?? trial.id,
		design: {
			...design,
			seed: randomInt(0, 0xffffffff),
			looks: [],
			added: 0,
			countsDisturbed: false,
			lateAsked: [],
			notBefore,
			arms: armsAgain(design)
		}
	});
}
