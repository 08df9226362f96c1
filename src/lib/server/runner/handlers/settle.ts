/** Waiting until the page of an arm is served the same again and again, or the sample of a site from its cache. */
import { failedFetch, stabilityOf } from '$core/load/requests/stability';
import { longestLoadMs } from '$core/load/record/limits';
import { startSlot } from '../../rooms/trials/orders';
import { stopForFullDisk, storeSettling } from '../../rooms/trials/progress';
import { giveUpSettling, insertNextPass, longestPassMs, settlePass, stopSettling } from '../../rooms/pages/settling';
import { finishJob, type Job } from '../../base/queue/jobs';
import type { Handler, Workplace } from '../handler';

const LONGEST_MS = 7_200_000;

export const settle: Handler = {
	longestMs: LONGEST_MS,
	async run(job, at) {
		if (job.subject.kind === 'site') return runSite(job, at);
		const { db, lab, labId } = at;
		const { order, settleWithinMs } = startSlot(db, job.slot!);
		at.note(job, settleWithinMs + longestLoadMs(order));
		const result = await lab.waitUntilStable(order.url, order.conditions, settleWithinMs);
		if (at.interrupted() === 'lost') return;
		await at.persist(() =>
			db
				.transaction(() => {
					if (finishJob(db, job, labId)) storeSettling(db, job, job.slot!, result);
				})
				.immediate()
		);
	},
	giveUp(job, { db }) {
		if (job.subject.kind === 'site') return giveUpSettling(db, job.subject.id, job.attempts - 1);
		const problem = `the lab ended ${job.attempts - 1} times while it waited for this page`;
		storeSettling(db, job, job.slot!, stabilityOf([failedFetch(problem)]));
	},
	diskFull({ slot, subject }, { db }) {
		if (slot) stopForFullDisk(db, slot.trialId);
		else stopSettling(db, subject.id);
	}
};

/** One pass; the next waits in the queue, so that loads go on between two. */
async function runSite(job: Job, at: Workplace): Promise<void> {
	const { db, lab, labId, persist } = at;
	const { id } = job.subject;
	at.note(job, longestPassMs(db, id));
	const isDue = await settlePass(db, id, {
		ask: lab.askPages.bind(lab),
		goesOn: () => at.interrupted() === null,
		persist
	});
	if (at.interrupted() === 'lost') return;
	await persist(() =>
		db
			.transaction(() => {
				if (finishJob(db, job, labId) && isDue) insertNextPass(db, id);
			})
			.immediate()
	);
}
