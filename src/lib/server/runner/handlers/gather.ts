/** Asking others between loads: a site for its pages and their markup, the panel for what visitors had. */
import * as v from 'valibot';
import { FieldOrder, gatherField, LONGEST_FIELD_MS } from '../../rooms/field/gathering';
import {
	gatherFor,
	GatherOrder,
	giveUpGathering,
	longestGatherMs,
	parseGatherOrder
} from '../../rooms/pages/gathering';
import { giveUpHostLook, HostLookOrder, LONGEST_HOST_LOOK_MS, lookAtSite } from '../../rooms/pages/hostLook';
import { finishJob, type Job } from '../../base/queue/jobs';
import type { Handler, Workplace } from '../handler';

/** A crawl of 200 pages, or a sitemap of 500 files. */
const LONGEST_MS = 1_500_000;

export const gather: Handler = {
	longestMs: LONGEST_MS,
	async run(job, at) {
		const field = v.safeParse(FieldOrder, job.order);
		if (field.success) await runField(job, field.output.until, at);
		else if (v.is(HostLookOrder, job.order)) await runHostLook(job, at);
		else await runPages(job, at);
		if (at.interrupted() === 'lost') return;
		await at.persist(() => finishJob(at.db, job, at.labId));
	},
	giveUp(job, { db }) {
		// Of field data nothing is shown while they are asked for: the next day asks again.
		const { success, output } = v.safeParse(GatherOrder, job.order);
		if (v.is(HostLookOrder, job.order)) giveUpHostLook(db, job.subject.id, job.attempts - 1);
		if (success) giveUpGathering(db, job.subject.id, output, job.attempts - 1);
	}
};

const goesOn = (at: Workplace) => () => at.interrupted() === null;

async function runPages(job: Job, at: Workplace): Promise<void> {
	const order = parseGatherOrder(job.order);
	at.note(job, longestGatherMs(order));
	const { outward, persist } = at;
	await gatherFor(at.db, job.subject.id, order, { outward, persist, goesOn: goesOn(at) });
}

async function runHostLook(job: Job, at: Workplace): Promise<void> {
	at.note(job, LONGEST_HOST_LOOK_MS);
	const { outward, persist, hostLook } = at;
	await lookAtSite(at.db, job.subject.id, { settings: hostLook, outward, persist });
}

async function runField(job: Job, until: string, at: Workplace): Promise<void> {
	at.note(job, LONGEST_FIELD_MS);
	const { outward, persist, panel } = at;
	if (!panel.url) return;
	await gatherField(at.db, job.subject.id, until, { panel, outward, persist, goesOn: goesOn(at) });
}
