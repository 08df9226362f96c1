import { json } from '@sveltejs/kit';
import { getDb } from '$lib/server/context';
import { answering, readJson } from '$lib/server/http/api';
import { createReport, NewReport } from '$lib/server/reports/commands';
import { listReports } from '$lib/server/reports/queries';

/** Newest change first; `client` shows one client's. */
export const GET = ({ url }) =>
	answering(() => json({ reports: listReports(getDb(), Number(url.searchParams.get('client')) || null) }));

export const POST = ({ request }) =>
	answering(async () => {
		const id = createReport(getDb(), await readJson(request, NewReport));
		return json({ id }, { status: 201, headers: { location: `/api/reports/${id}` } });
	});
