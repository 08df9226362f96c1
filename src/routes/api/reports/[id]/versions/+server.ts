import { json } from '@sveltejs/kit';
import { getDb } from '$lib/server/context';
import { answering, idFrom } from '$lib/server/http/api';
import { freezeReport } from '$lib/server/reports/freeze';
import { existingReport, listVersions } from '$lib/server/reports/queries';

export const GET = ({ params }) =>
	answering(() => {
		const { id } = existingReport(getDb(), idFrom(params.id, 'report'));
		return json({ versions: listVersions(getDb(), id) });
	});

/** Freeze the draft as it stands. */
export const POST = ({ params }) =>
	answering(() => {
		const id = idFrom(params.id, 'report');
		const number = freezeReport(getDb(), id);
		return json({ number }, { status: 201, headers: { location: `/api/reports/${id}/versions/${number}` } });
	});
