import { loadsCsv } from '$core/formats/csv';
import { answering, idFrom } from '$lib/server/http/api';
import { findTrial } from '$lib/server/rooms/trials/trial';
import { NotPossible } from '$lib/server/base/refusal';
import { loadsOfTrial } from '$lib/server/rooms/loads/view';

export const GET = ({ locals, params }) =>
	answering(() => {
		const trial = findTrial(locals.db, idFrom(params.id, 'trial'));
		if (!trial) throw new NotPossible(404, `There is no trial ${params.id}.`);
		return new Response(loadsCsv(trial.design.arms, loadsOfTrial(locals.db, trial.id)), {
			headers: {
				'content-type': 'text/csv; charset=utf-8',
				'content-disposition': `attachment; filename="zafra-trial-${trial.id}-loads.csv"`
			}
		});
	});
