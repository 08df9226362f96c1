import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { deleteAudit } from '$lib/server/rooms/audits/commands';
import { auditView } from '$lib/server/rooms/audits/view';

export const GET = ({ locals, params }) => answering(() => json(auditView(locals.db, idFrom(params.id, 'audit'))));

export const DELETE = ({ locals, params }) =>
	answering(() => {
		deleteAudit(locals.db, idFrom(params.id, 'audit'));
		return new Response(null, { status: 204 });
	});
