/** Single loads: asking for one, and taking in a HAR from elsewhere. */
import * as v from 'valibot';
import { lacksSecrets } from '$core/load/conditions';
import { Steps, type Step } from '$core/load/steps';
import { loadOfHar } from '$core/formats/harImport';
import { isWebAddress } from '$core/load/address';
import { findConditions, listConditions } from '../db/conditions';
import type { Db } from '../db/connection';
import { ALONE, findLoad, findRecord, insertLoad } from '../db/loads';
import { insertSingle } from '../db/singles';
import { findTrial } from '../db/trials';
import { checkClient, NotPossible } from './trials';

export const SingleInput = v.object(
	{
		url: v.pipe(
			v.string('Give an address.'),
			v.trim(),
			v.check(
				isWebAddress,
				'This is not a web address. Write it in full, with http:// or https://, without a user name or password: these belong into the conditions.'
			)
		),
		conditions: v.string('Name the conditions.'),
		nudge: v.optional(v.boolean('“nudge” is true or false.'), false),
		repeat: v.optional(v.boolean('“repeat” is true or false.'), false),
		steps: v.optional(Steps, []),
		clientId: v.optional(
			v.nullable(v.pipe(v.number('The client is a number.'), v.safeInteger('The client is a whole number.'))),
			null
		)
	},
	'Send a JSON object that describes the load.'
);

export interface SingleWish {
	url: string;
	conditions: string;
	nudge?: boolean;
	repeat?: boolean;
	steps?: Step[];
	clientId?: number | null;
}

/** Queue one load. @returns its id among the single loads */
export function askForLoad(db: Db, wish: SingleWish): number {
	checkClient(db, wish.clientId ?? null);
	const kept = findConditions(db, wish.conditions);
	if (!kept) {
		const known = listConditions(db)
			.map((one) => one.id)
			.join(', ');
		throw new NotPossible(422, `Unknown conditions “${wish.conditions}”. Known are: ${known}.`, 'conditions');
	}
	const conditions = {
		...kept,
		input: wish.nudge ? ('nudge' as const) : kept.input,
		cache: wish.repeat ? ('repeat' as const) : kept.cache
	};
	return insertSingle(db, {
		clientId: wish.clientId ?? null,
		url: new URL(wish.url).href,
		conditions,
		steps: wish.steps ?? []
	});
}

/** @returns the id of the new load @throws NotPossible in words when the file is no HAR */
export function importHar(db: Db, file: string, clientId: number | null): number {
	checkClient(db, clientId);
	let record;
	try {
		record = loadOfHar(file);
	} catch (error) {
		throw new NotPossible(422, (error as Error).message, 'file');
	}
	return db.transaction(() =>
		insertLoad(
			db,
			{ ...ALONE, conditionId: 'unknown', clientId },
			{ record, frames: [], picture: null, stepPicture: null }
		)
	)();
}

/** The same page under the same conditions once more, with a nudge. The conditions are those of its trial, secrets and all. */
export function nudgeAgain(db: Db, loadId: number): number {
	const load = findLoad(db, loadId);
	const record = load && findRecord(db, loadId);
	if (!load || !record?.conditions) throw new NotPossible(404, `There is no load ${loadId} with known conditions.`);
	const trial = load.trialId === null ? null : findTrial(db, load.trialId);
	const conditions =
		trial?.design.conditions.find((one) => one.id === load.conditionId) ??
		findConditions(db, load.conditionId) ??
		record.conditions;
	if (lacksSecrets(conditions))
		throw new NotPossible(409, 'The conditions of this load held secrets and are gone, so that it cannot be repeated.');
	return insertSingle(db, {
		clientId: trial?.clientId ?? null,
		url: record.url,
		conditions: { ...conditions, input: 'nudge' },
		steps: [],
		trialId: load.trialId,
		armId: load.trialId === null ? null : load.armId
	});
}

/** One nudged load of an arm under each of the trial's conditions: what it holds back. */
export function nudgeArm(db: Db, trialId: number, armId: number): void {
	const trial = findTrial(db, trialId);
	const arm = trial?.design.arms.find((one) => one.id === armId);
	if (!trial || !arm) throw new NotPossible(404, 'There is no such arm.');
	for (const conditions of trial.design.conditions)
		insertSingle(db, {
			clientId: trial.clientId,
			url: arm.url,
			conditions: { ...conditions, input: 'nudge' },
			steps: [],
			trialId,
			armId
		});
}
