import { getDb } from '$lib/server/context';
import { listTrials } from '$lib/server/db/trials';
import { headlinesOf } from '$lib/server/queue/headlines';

export const load = async ({ parent }) => {
	const { clientId } = await parent();
	const db = getDb();
	const trials = listTrials(db, clientId).map((trial) => ({
		id: trial.id,
		question: trial.question,
		clientName: trial.clientName,
		status: trial.status,
		message: trial.message,
		progress: trial.progress,
		endedAt: trial.endedAt,
		unread: trial.endedAt !== null && trial.readAt === null,
		headlines: trial.status === 'done' ? headlinesOf(db, trial) : []
	}));
	const is = (...states: string[]) => trials.filter((trial) => states.includes(trial.status));
	return {
		where: 'Desk',
		running: is('running', 'queued'),
		waiting: is('waiting', 'draft', 'stopped', 'failed'),
		unread: is('done').filter((trial) => trial.unread),
		recent: is('done')
			.filter((trial) => !trial.unread)
			.slice(0, 6)
	};
};
