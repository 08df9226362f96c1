import { getDb } from '$lib/server/context';
import { listTrials } from '$lib/server/db/trials';
import { headlinesOf } from '$lib/server/queue/headlines';
import { TEMPLATES } from '$core/trial/templates';

export const load = async ({ parent, url }) => {
	const { clientId } = await parent();
	const db = getDb();
	return {
		where: 'Trials',
		query: url.searchParams.get('q') ?? '',
		state: url.searchParams.get('state') ?? '',
		kind: url.searchParams.get('kind') ?? '',
		verdict: url.searchParams.get('verdict') ?? '',
		site: url.searchParams.get('site') ?? '',
		templates: TEMPLATES.map(({ id, name }) => ({ id, name })),
		trials: listTrials(db, clientId).map((trial) => ({
			id: trial.id,
			question: trial.question,
			client: trial.clientName ?? '',
			sites: [...new Set(trial.design.arms.map((arm) => new URL(arm.url).host))],
			kind: trial.design.kind,
			status: trial.status,
			done: trial.progress.done,
			total: trial.progress.total,
			when: trial.startedAt ?? trial.createdAt,
			headlines: trial.status === 'done' ? headlinesOf(db, trial) : []
		}))
	};
};
