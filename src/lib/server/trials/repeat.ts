/** A trial once more: the same design and frozen conditions, new loads, so that both answers can be seen. */
import { randomInt } from 'node:crypto';
import type { Db } from '../db/connection';
import { findTrial } from './trial';
import { insertTrial } from './queries';
import { NotPossible } from '../http/refusal';

/** @returns the id of the new draft */
export function repeatTrial(db: Db, id: number): number {
	const trial = findTrial(db, id);
	if (!trial) throw new NotPossible(404, `There is no trial ${id}.`);
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
			notBefore: null,
			arms: design.arms.map(({ id: _id, ...arm }) => arm)
		}
	});
}
