/** Working out what could be saved of an audit's files: in the heavy thread, a turn at a time, behind all else. */
import { dirname } from 'node:path';
import { requestFindings, requestSavings } from '../../rooms/audits/commands';
import { finishJob, type Job } from '../../base/queue/jobs';
import type { Workplace } from '../handler';
import { heavyWork, type RunHeavy } from '../heavy';

const threads = new Map<string, RunHeavy>();

function threadOf(folder: string): RunHeavy {
	const thread = threads.get(folder) ?? heavyWork(folder);
	threads.set(folder, thread);
	return thread;
}

/** What is not done yet has its next turn after all that waits. */
export async function workOutSavings(job: Job, { db, labId, log, persist }: Workplace): Promise<void> {
	const { id } = job.subject;
	const run = threadOf(dirname(db.name));
	let isOver = true;
	try {
		const { done, total } = await run('computeSavings', id);
		isOver = done >= total;
	} catch (error) {
		log.error({ audit: id, error: (error as Error).message }, 'savings could not be worked out');
	}
	await persist(() => {
		finishJob(db, job, labId);
		if (isOver) requestFindings(db, id);
		else requestSavings(db, id);
	});
}
