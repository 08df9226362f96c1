import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { existingTrial } from '$lib/server/rooms/trials/commands';
import { wholeSheet } from '$lib/server/rooms/trials/sheet/whole';

/** All that the sheet of the trial shows. */
export const GET = ({ locals, params, url }) =>
	answering(async () => {
		const trial = existingTrial(locals.db, idFrom(params.id, 'trial'));
		return json(await wholeSheet(locals.db, trial, url.searchParams.get('metric') ?? '', locals.judgeElsewhere));
	});
