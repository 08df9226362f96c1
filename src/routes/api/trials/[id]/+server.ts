import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/access/api';
import { getDb } from '$lib/server/context';
import { findTrial } from '$lib/server/db/trials';
import { trialAnswer } from '$lib/server/queue/answer';
import { NotPossible } from '$lib/server/queue/trials';

export const GET = ({ params }) =>
	answering(async () => {
		const trial = findTrial(getDb(), idFrom(params.id, 'trial'));
		if (!trial) throw new NotPossible(404, `There is no trial ${params.id}.`);
		return json(await trialAnswer(getDb(), trial));
	});
