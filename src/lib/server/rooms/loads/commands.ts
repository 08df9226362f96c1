/** Asking for loads, reading HAR files, storing and excluding loads. */
import * as v from 'valibot';
import { lacksSecrets, type Conditions } from '$core/load/conditions/conditions';
import type { LoadOrder } from '$core/load/journey/order';
import type { MeasuredLoad } from '$core/load/record/record';
import { Steps } from '$core/load/journey/steps';
import { Tap, TAP_MOMENTS } from '$core/load/journey/tap';
import { stateLacksSecrets, VisitorState } from '$core/load/journey/visitorState';
import { loadOfHar } from '$core/formats/harImport';
import { WebAddress } from '$core/load/requests/addressInput';
import { OUTAGE_KINDS, outsideServices } from '$core/load/journey/outage';
import { checkClient } from '../clients/clients';
import { atPlaceOf } from '../clients/sites';
import { findConditions, namesOfConditions } from '../conditions/saved';
import type { Db } from '../../base/db/connection';
import { NotPossible } from '../../base/refusal';
import type { Job } from '../../base/queue/jobs';
import { NOBODY, type Subject } from '../../base/subject';
import { clientOfLoad, deleteLoneLoad, findLoad, type LoadSeen, setExcluded } from './queries/loads';
import { findRecord, frozenConditions, insertLoad } from './loads';
import { clientOfRequest } from './queries/requested';
import { insertRequest } from './requested';
import { cdnHostsOf, existingState } from '../clients/view';
import type { NamedVersion } from '../conditions/view';

export const LoadRequest = v.object(
	{
		url: WebAddress,
		conditions: v.string('Name the conditions.'),
		nudge: v.optional(v.boolean('“nudge” is true or false.'), false),
		patience: v.optional(v.boolean('“patience” is true or false.'), false),
		repeat: v.optional(v.boolean('“repeat” is true or false.'), false),
		/** Look at what can be picked of the page, and which checks hold. */
		survey: v.optional(v.boolean('“survey” is true or false.'), false),
		steps: v.optional(Steps, []),
		/** Who the visitor is before the page is measured: a visitor state, or the number of one that a site has. */
		before: v.optional(v.nullable(VisitorState), null),
		state: v.optional(v.nullable(v.pipe(v.number('A visitor state is a number.'), v.safeInteger())), null),
		clientId: v.optional(
			v.nullable(v.pipe(v.number('The client is a number.'), v.safeInteger('The client is a whole number.'))),
			null
		)
	},
	'Send a JSON object that describes the load.'
);

/** Queue one load. @returns the id of its job */
export function requestLoad(db: Db, input: v.InferInput<typeof LoadRequest>): number {
	const { url, conditions: id, nudge = false, patience = false, repeat = false, clientId = null } = input;
	checkClient(db, clientId);
	const saved = findConditions(db, id);
	if (!saved)
		throw new NotPossible(422, `Unknown conditions “${id}”. Known are: ${namesOfConditions(db)}.`, 'conditions');
	const conditions = {
		...atPlaceOf(db, clientId, [url], saved),
		input: nudge ? ('nudge' as const) : saved.input,
		cache: repeat ? ('repeat' as const) : saved.cache
	};
	const subject = subjectOfClient(clientId);
	return insertRequest(db, subject, {
		url: new URL(url).href,
		conditions,
		patience,
		survey: input.survey ?? false,
		steps: (input.steps ?? []) as LoadOrder['steps'],
		before: visitorOf(db, input)
	});
}

function visitorOf(db: Db, { state = null, before = null }: v.InferInput<typeof LoadRequest>): LoadOrder['before'] {
	const visitor = state === null ? (before as LoadOrder['before']) : existingState(db, state).state;
	if (visitor && stateLacksSecrets(visitor))
		throw new NotPossible(
			422,
			`The visitor state “${visitor.name}” lacks its cookies or passwords: give it new ones.`,
			'state'
		);
	return visitor;
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
	const stored = { jobId: null, slot: null, conditionId: 'unknown', conditionsHash: null, clientId };
	return db.transaction(() => insertLoad(db, stored, { record, frames: [], picture: null, stepPicture: null }))();
}

/** Store the load that a job outside trials asked for. */
export function storeRequestedLoad(
	db: Db,
	{
		job,
		version,
		measured,
		seen = null
	}: { job: Job; version: NamedVersion; measured: MeasuredLoad; seen?: LoadSeen | null }
): number {
	const clientId = clientOfRequest(db, job.subject);
	const stored = { jobId: job.id, slot: null, conditionId: version.id, conditionsHash: version.hash, clientId, seen };
	return insertLoad(db, stored, measured);
}

/** The same page under the same conditions once more, with a nudge. @returns the id of the job */
export function requestNudge(db: Db, loadId: number): number {
	const { subject, url, conditions } = orderOf(db, loadId);
	return insertRequest(db, subject, { url, conditions: { ...conditions, input: 'nudge' }, steps: [] });
}

/** The same page under the same conditions once more; the lab waits on. @returns the id of the job */
export function requestPatience(db: Db, loadId: number): number {
	const { subject, url, conditions } = orderOf(db, loadId);
	return insertRequest(db, subject, { url, conditions: { ...conditions, input: 'none' }, steps: [], patience: true });
}

/**
 * The same page under the same conditions once for each of its outside services and each way to fail.
 * @returns ids of the jobs
 */
export function requestOutages(db: Db, loadId: number): number[] {
	const { url, conditions } = orderOf(db, loadId);
	const record = findRecord(db, loadId)!;
	const { host } = new URL(record.finalUrl || record.url);
	const services = outsideServices(record, cdnHostsOf(db, clientOfLoad(db, loadId), host));
	if (!services.length) throw new NotPossible(409, 'This page asks no outside service: there is nothing to strike.');
	const whom = ofClient(db, loadId);
	return services.flatMap(({ hosts }) =>
		OUTAGE_KINDS.map((how) => insertRequest(db, whom, { url, conditions, steps: [], outage: { hosts, how } }, loadId))
	);
}

/** The same page under the same conditions, asked as an ordinary browser. @returns the id of the job */
export function requestAsVisitor(db: Db, loadId: number): number {
	const { url, conditions } = orderOf(db, loadId);
	return insertRequest(db, ofClient(db, loadId), { url, conditions, steps: [], asVisitor: true }, loadId);
}

/** A control and what must appear once it was pressed. */
export const TapRequest = v.omit(Tap, ['afterMs']);

/** The same page three times, a control pressed at first paint, one second and three seconds later. @returns job ids */
export function requestTaps(db: Db, loadId: number, tapValue: v.InferOutput<typeof TapRequest>): number[] {
	const { url, conditions } = orderOf(db, loadId);
	const whom = ofClient(db, loadId);
	return TAP_MOMENTS.map((afterMs) =>
		insertRequest(db, whom, { url, conditions, steps: [], tap: { ...tapValue, afterMs } }, loadId)
	);
}

/** What a load was asked for: its frozen conditions, secrets and all. */
function orderOf(db: Db, loadId: number): { subject: Subject; url: string; conditions: Conditions } {
	const load = findLoad(db, loadId);
	const record = load && findRecord(db, loadId);
	if (!load || !record?.conditions) throw new NotPossible(404, `There is no load ${loadId} with known conditions.`);
	const conditions = frozenConditions(db, loadId) ?? record.conditions;
	if (lacksSecrets(conditions))
		throw new NotPossible(409, 'The conditions of this load held secrets and are gone, so that it cannot be repeated.');
	const subject: Subject = load.trialId === null ? ofClient(db, loadId) : { kind: 'arm', id: load.armId };
	return { subject, url: record.url, conditions };
}

/** Whom a load serves that is none of a variant's. */
const ofClient = (db: Db, loadId: number) => subjectOfClient(clientOfLoad(db, loadId));

const subjectOfClient = (id: number | null): Subject => (id === null ? NOBODY : { kind: 'client', id });

/** @param reason why the load is excluded; null counts it again */
export function excludeLoad(db: Db, loadId: number, reason: string | null): void {
	const load = findLoad(db, loadId);
	if (!load?.trialId) throw new NotPossible(404, `There is no load ${loadId} in a trial.`);
	if (reason !== null && reason.trim() === '')
		throw new NotPossible(422, 'Say why this load is excluded: the reason stays with it.', 'reason');
	setExcluded(db, loadId, reason === null ? null : reason.trim().slice(0, 300));
}

/** Delete a load outside trials with its record and pictures. */
export function deleteLoad(db: Db, loadId: number): void {
	if (deleteLoneLoad(db, loadId)) return;
	if (findLoad(db, loadId))
		throw new NotPossible(409, 'This load is part of a trial: exclude it there, or delete the trial.');
	throw new NotPossible(404, `There is no load ${loadId}.`);
}
