import { json } from '@sveltejs/kit';
import { AuditInput } from '$core/audits/audit';
import { answering, readJson } from '$lib/server/http/api';
import { createAudit } from '$lib/server/rooms/audits/commands';
import { auditListView } from '$lib/server/rooms/audits/view';

/** `?client=` and `?page=`; newest first. */
export const GET = ({ locals, url }) =>
	answering(() => {
		const [client, page] = ['client', 'page'].map((name) => Number(url.searchParams.get(name)) || null);
		return json(auditListView(locals.db, client ?? null, page ?? 1));
	});

/** `{ clientId?, pages?, urls?, conditions, loads }`: begun at once. */
export const POST = ({ locals, request }) =>
	answering(async () => {
		const id = createAudit(locals.db, await readJson(request, AuditInput));
		return json({ id }, { status: 201, headers: { location: `/api/audits/${id}` } });
	});
