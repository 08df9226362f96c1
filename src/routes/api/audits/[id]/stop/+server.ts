import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { stopAudit } from '$lib/server/rooms/audits/commands';

/** With what it has: its findings are worked out from the loads that ended. */
export const POST = ({ locals, params }) =>
	answering(() => {
		const id = idFrom(params.id, 'audit');
		stopAudit(locals.db, id);
		return json({ id }, { status: 202 });
	});
