/** The trial that this one repeats, and its other repeats. */
import { publicStatus } from '$core/trial/design/status';
import type { Db } from '../../../base/db/connection';
import { ageOf, startOf } from '../effectByAge';
import { listedAnswer } from '../listedAnswer';
import { repeatsOf } from '../queries/trials';
import { findTrial, type Trial } from '../trial';

export function repeatIds(db: Db, { id, repeatOf }: Trial): number[] {
	const first = repeatOf === null ? [] : [repeatOf];
	return [...first, ...repeatsOf(db, repeatOf ?? id)].filter((other) => other !== id);
}

export function repeatsView(db: Db, trial: Trial) {
	const origin = findTrial(db, trial.repeatOf ?? trial.id);
	return repeatIds(db, trial).map((id) => {
		const other = findTrial(db, id)!;
		const answer = other.status === 'done' ? listedAnswer(db, other) : null;
		return { id, at: startOf(other), age: ageOf(other, origin), status: publicStatus(other.status), answer };
	});
}
