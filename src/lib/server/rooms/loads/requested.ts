/** Loads outside the rounds of a trial: one page, once, as a job of its own. */
import { Rewrites } from '$core/rewrites/rewrite';
import * as v from 'valibot';
import type { Conditions } from '$core/load/conditions/conditions';
import type { LoadOrder } from '$core/load/journey/order';
import { NamedElements } from '$core/load/journey/namedElement';
import { Outage } from '$core/load/journey/outage';
import { Steps, type Step } from '$core/load/journey/steps';
import { Tap } from '$core/load/journey/tap';
import { VisitorState } from '$core/load/journey/visitorState';
import type { Db } from '../../base/db/connection';
import { findJob, insertJob, isOpen, PRIORITY, type Job, type JobStatus } from '../../base/queue/jobs';
import type { Subject } from '../../base/subject';
import { loadOfJob } from './queries/loads';
import { freezeConditions, thawConditions, type NamedVersion } from '../conditions/view';
import { openJobs, jobsOfArms, jobsOfLoad, jobsByStatus, newestRequested } from './queries/requested';

/** As the job holds it: conditions by their version. */
export const StoredOrder = v.object({
	url: v.string(),
	steps: Steps,
	patience: v.optional(v.boolean(), false),
	outage: v.optional(v.nullable(Outage), null),
	asVisitor: v.optional(v.boolean(), false),
	tap: v.optional(v.nullable(Tap), null),
	shown: v.optional(NamedElements, []),
	before: v.optional(v.nullable(VisitorState), null),
	survey: v.optional(v.boolean(), false),
	sideChecks: v.optional(v.boolean(), false),
	bodies: v.optional(v.boolean(), false),
	rewriting: v.optional(v.nullable(v.object({ rewrites: Rewrites, twin: v.nullable(v.string()) })), null),
	conditions: v.object({ id: v.string(), name: v.string(), summary: v.string(), hash: v.string() })
});

export interface RequestedLoad {
	id: number;
	url: string;
	conditions: Conditions;
	/** The lab waits on once the page has settled. */
	patience: boolean;
	/** A service that is struck meanwhile; null for a load without. */
	outage: Outage | null;
	/** The arm on whose behalf it is loaded; null for any other page. */
	armId: number | null;
	status: 'queued' | 'leased' | 'done';
	loadId: number | null;
}

/** Queue a load. @param ofLoad the load whose page is asked again @returns the id of its job */
export function insertRequest(
	db: Db,
	subject: Subject,
	{ url, conditions, steps, patience = false, outage = null, asVisitor = false, tap = null, ...rest }: LoadOrder,
	ofLoad: number | null = null
): number {
	const { before = null, shown = [], survey = false, sideChecks = false, bodies = false, rewriting = null } = rest;
	const order = {
		url,
		steps,
		patience,
		outage,
		asVisitor,
		tap,
		before,
		shown,
		survey,
		sideChecks,
		bodies,
		...(rewriting ? { rewriting } : {}),
		conditions: freezeConditions(db, conditions)
	};
	// Nobody waits for a block of watched pages: it has its own turn.
	const priority = subject.kind === 'reading' || subject.kind === 'audit' ? PRIORITY.trial : PRIORITY.awaited;
	return insertJob(db, { kind: 'load', subject, order, ofLoad, priority });
}

/** What a job outside trials asks of the lab. */
export function requestedOrder(db: Db, job: Pick<Job, 'order'>): LoadOrder & { version: NamedVersion } {
	const { conditions, steps, ...order } = v.parse(StoredOrder, job.order);
	return { ...order, steps: steps as Step[], conditions: thawConditions(db, conditions), version: conditions };
}

function asRequest(db: Db, job: Job): RequestedLoad {
	const { url, conditions, patience = false, outage = null } = requestedOrder(db, job);
	const armId = job.subject.kind === 'arm' ? job.subject.id : null;
	return {
		id: job.id,
		url,
		conditions,
		patience,
		outage,
		armId,
		status: statusOf(job.status),
		loadId: loadOfJob(db, job.id)
	};
}

/** A job outside trials is never cancelled: it is deleted. */
const statusOf = (status: JobStatus) => (status === 'cancelled' ? 'done' : status);

export function findRequest(db: Db, id: number): RequestedLoad | null {
	const job = findJob(db, id);
	return job && job.kind === 'load' && !job.slot ? asRequest(db, job) : null;
}

/** Those that wait or are under way, newest first. */
export function openRequests(db: Db): RequestedLoad[] {
	return openJobs(db).map(({ id }) => findRequest(db, id)!);
}

/** Those on behalf of the arms of a trial, newest first. */
export function requestsOfTrial(db: Db, trialId: number): RequestedLoad[] {
	return jobsOfArms(db, trialId).map(({ id }) => findRequest(db, id)!);
}

/** Those that ask the page of a load again, newest first: under outages, as a visitor, or with an early tap. */
export function againRequests(db: Db, loadId: number, which: 'outage' | 'asVisitor' | 'tap'): RequestedLoad[] {
	return jobsOfLoad(db, loadId, which).map(({ id }) => findRequest(db, id)!);
}

/** How many are under way, and the newest load that came of one. */
export function countRequests(db: Db): { open: number; leased: number; newest: number } {
	const rows = jobsByStatus(db);
	const count = (status: JobStatus) => rows.find((row) => row.status === status)?.n ?? 0;
	return {
		open: rows.filter((row) => isOpen(row.status)).reduce((sum, row) => sum + row.n, 0),
		leased: count('leased'),
		newest: newestRequested(db)
	};
}
