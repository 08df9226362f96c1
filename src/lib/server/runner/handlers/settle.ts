/** Waiting until the page of an arm is served the same again and again. */
import { failedFetch, stabilityOf } from '$core/load/requests/stability';
import { longestLoadMs } from '$core/load/record/limits';
import { startSlot } from '../../rooms/trials/orders';
import { stopForFullDisk, storeSettling } from '../../rooms/trials/progress';
import { finishJob } from '../../base/queue/jobs';
import type { Handler } from '../handler';

const LONGEST_MS = 7_200_000;

export const settle: Handler = {
	longestMs: LONGEST_MS,
	async run(job, at) {
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
		const problem = `the lab ended ${job.attempts - 1} times while it waited for this page`;
		storeSettling(db, job, job.slot!, stabilityOf([failedFetch(problem)]));
	},
	diskFull: ({ slot }, { db }) => stopForFullDisk(db, slot!.trialId)
};
