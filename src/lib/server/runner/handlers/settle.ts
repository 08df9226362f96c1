/** Waiting until the page of an arm is served the same again and again. */
import { failedFetch, stabilityOf } from '$core/load/requests/stability';
import { longestLoadMs } from '$core/load/record/limits';
import { startPlace } from '../../rooms/trials/orders';
import { stopForFullDisk, storeSettling } from '../../rooms/trials/progress';
import { finishJob } from '../../base/queue/jobs';
import type { Handler } from '../handler';

const LONGEST_MS = 7_200_000;

export const settle: Handler = {
	longestMs: LONGEST_MS,
	async run(job, at) {
		const { db, lab, labId } = at;
		const { order, settleWithinMs } = startPlace(db, job.place!);
		at.note(job, settleWithinMs + longestLoadMs(order));
		const result = await lab.waitUntilStable(order.url, order.conditions, settleWithinMs);
		if (at.interrupted() === 'lost') return;
		await at.persist(() =>
			db
				.transaction(() => {
					if (finishJob(db, job, labId)) storeSettling(db, job, job.place!, result);
				})
				.immediate()
		);
	},
	giveUp(job, { db }) {
		const problem = `the lab ended ${job.attempts - 1} times while it waited for this page`;
		storeSettling(db, job, job.place!, stabilityOf([failedFetch(problem)]));
	},
	diskFull: ({ place }, { db }) => stopForFullDisk(db, place!.trialId)
};
