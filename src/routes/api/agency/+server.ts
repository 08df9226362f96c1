import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { Agency } from '$core/report/agency';
import { answering, readJson } from '$lib/server/http/api';
import { agencyOf, saveAgency } from '$lib/server/rooms/reports/view';

export const GET = ({ locals }) => answering(() => json(agencyOf(locals.db)));

/** Fields that are not sent stay as they are. */
export const PATCH = ({ locals, request }) =>
	answering(async () => {
		saveAgency(locals.db, { ...agencyOf(locals.db), ...(await readJson(request, v.partial(Agency))) });
		return json(agencyOf(locals.db));
	});
