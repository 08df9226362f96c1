import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/access/api';
import { getDb } from '$lib/server/context';
import { findTrial } from '$lib/server/db/trials';
import { evidenceOf } from '$lib/server/queue/evidence';
import { NotPossible } from '$lib/server/queue/trials';

/** Why, fairness and what broke, as far as it has been worked out. */
export const GET = ({ params }) =>
	answering(() => {
		const trial = findTrial(getDb(), idFrom(params.id, 'trial'));
		if (!trial) throw new NotPossible(404, `There is no trial ${params.id}.`);
		const kept = evidenceOf(getDb(), trial);
		return json({ pending: kept === null || kept.stale, ...(kept?.result ?? { arms: [], films: [] }) });
	});
