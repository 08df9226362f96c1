import { getDb } from '$lib/server/context';
import { listTrials } from '$lib/server/db/trials';
import { judgementOf } from '$lib/server/queue/answer';
import { headlineOf } from '../../core/wording/headline';

export const load = async ({ parent, url }) => {
	const { clientId } = await parent();
	const db = getDb();
	return {
		where: 'Trials',
		query: url.searchParams.get('q') ?? '',
		state: url.searchParams.get('state') ?? '',
		trials: listTrials(db, clientId).map((trial) => ({
			id: trial.id,
			question: trial.question,
			client: trial.clientName ?? '',
			kind: trial.design.kind,
			status: trial.status,
			done: trial.progress.done,
			total: trial.progress.total,
			when: trial.startedAt ?? trial.createdAt,
			headlines: trial.status === 'done' ? headlineOf(trial.design, judgementOf(db, trial)) : []
		}))
	};
};
