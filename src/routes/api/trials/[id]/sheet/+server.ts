import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { getDb } from '$lib/server/context';
import { existingTrial } from '$lib/server/trials/commands';
import { sheetView } from '$lib/server/trials/sheetView';

/** All that the sheet of the trial shows. */
export const GET = ({ params, url }) =>
	answering(async () => {
		const trial = existingTrial(getDb(), idFrom(params.id, 'trial'));
		return json(await sheetView(getDb(), trial, url.searchParams.get('metric') ?? ''));
	});
