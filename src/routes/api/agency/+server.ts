import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { Agency } from '$core/report/agency';
import { getDb } from '$lib/server/context';
import { answering, readJson } from '$lib/server/http/api';
import { agencyOf, saveAgency } from '$lib/server/reports/agency';

export const GET = () => answering(() => json(agencyOf(getDb())));

/** Fields that are not sent stay as they are. */
export const PATCH = ({ request }) =>
	answering(async () => {
		saveAgency(getDb(), { ...agencyOf(getDb()), ...(await readJson(request, v.partial(Agency))) });
		return json(agencyOf(getDb()));
	});
