import { json } from '@sveltejs/kit';
import { answering, readJson } from '$lib/server/http/api';
import { createReport, NewReport } from '$lib/server/rooms/reports/commands';
import { listReports } from '$lib/server/rooms/reports/view';

/** Newest change first; `client` shows one client's. */
export const GET = ({ locals, url }) =>
	answering(() => json({ reports: listReports(locals.db, Number(url.searchParams.get('client')) || null) }));

export const POST = ({ locals, request }) =>
	answering(async () => {
		const id = createReport(locals.db, await readJson(request, NewReport));
		return json({ id }, { status: 201, headers: { location: `/api/reports/${id}` } });
	});
