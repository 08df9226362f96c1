import { error, redirect } from '@sveltejs/kit';
import { describeConditions } from '../../../core/load/conditions';
import { packRequests } from '../../../core/load/requestList';
import { scoreOf } from '../../../core/metrics/score';
import { getDb } from '$lib/server/context';
import { cdnHostsOf } from '$lib/server/db/clients';
import { findLoad, findRecord } from '$lib/server/db/loads';
import { findTrial } from '$lib/server/db/trials';
import { nudgeAgain } from '$lib/server/queue/singles';

export const load = ({ params }) => {
	const db = getDb();
	const found = findLoad(db, Number(params.id));
	const record = found && findRecord(db, found.id);
	if (!found || !record) error(404, `There is no load ${params.id}.`);
	const trial = found.trialId === null ? null : findTrial(db, found.trialId);
	const arm = trial?.design.arms.find((one) => one.id === found.armId);
	return {
		where: trial ? `Trials › ${trial.question} › Load` : 'Loads › Load',
		load: { id: found.id, round: found.round, warmup: found.warmup, hasPicture: found.hasPicture },
		trial: trial && { id: trial.id, question: trial.question, arm: arm?.name ?? '' },
		detail: record.conditions && describeConditions(record.conditions),
		score: scoreOf(record.figures),
		cdnHosts: cdnHostsOf(db, new URL(record.finalUrl || record.url).host),
		record: { ...record, requests: [] },
		// As text: thousands of requests are read many times faster this way than as part of the page's own data.
		requests: packRequests(record.requests)
	};
};

export const actions = {
	nudge: ({ params }) => redirect(303, `/loads?waiting=${nudgeAgain(getDb(), Number(params.id))}`)
};
