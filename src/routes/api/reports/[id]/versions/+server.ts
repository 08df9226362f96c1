import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { freezeReport } from '$lib/server/rooms/reports/freeze';
import { existingReport, listVersions } from '$lib/server/rooms/reports/view';

export const GET = ({ locals, params }) =>
	answering(() => {
		const { id } = existingReport(locals.db, idFrom(params.id, 'report'));
		return json({ versions: listVersions(locals.db, id) });
	});

/** Freeze the draft as it stands. */
export const POST = ({ locals, params }) =>
	answering(() => {
		const id = idFrom(params.id, 'report');
		const number = freezeReport(locals.db, id);
		return json({ number }, { status: 201, headers: { location: `/api/reports/${id}/versions/${number}` } });
	});
