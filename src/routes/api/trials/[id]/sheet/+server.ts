import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { existingTrial } from '$lib/server/rooms/trials/commands';
import { sheetView } from '$lib/server/rooms/trials/sheetView';

/** All that the sheet of the trial shows. */
export const GET = ({ locals, params, url }) =>
	answering(async () => {
		const trial = existingTrial(locals.db, idFrom(params.id, 'trial'));
		return json(await sheetView(locals.db, trial, url.searchParams.get('metric') ?? '', locals.judgeElsewhere));
	});
