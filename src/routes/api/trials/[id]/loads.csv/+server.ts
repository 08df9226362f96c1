import { loadsCsv } from '$core/formats/csv';
import { answering, idFrom } from '$lib/server/http/api';
import { getDb } from '$lib/server/context';
import { loadsOfTrial } from '$lib/server/loads/loads';
import { findTrial } from '$lib/server/trials/trial';
import { NotPossible } from '$lib/server/http/refusal';

export const GET = ({ params }) =>
	answering(() => {
		const trial = findTrial(getDb(), idFrom(params.id, 'trial'));
		if (!trial) throw new NotPossible(404, `There is no trial ${params.id}.`);
		return new Response(loadsCsv(trial.design.arms, loadsOfTrial(getDb(), trial.id)), {
			headers: {
				'content-type': 'text/csv; charset=utf-8',
				'content-disposition': `attachment; filename="zafra-trial-${trial.id}-loads.csv"`
			}
		});
	});
