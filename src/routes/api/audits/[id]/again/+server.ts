import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { repeatAudit } from '$lib/server/rooms/audits/commands';

/** The same pages once more: what was found then is gone, left or not seen this time. */
export const POST = ({ locals, params }) =>
	answering(() => {
		const id = repeatAudit(locals.db, idFrom(params.id, 'audit'));
		return json({ id }, { status: 201, headers: { location: `/api/audits/${id}` } });
	});
