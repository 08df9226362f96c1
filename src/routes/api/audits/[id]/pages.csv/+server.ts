import { answering, idFrom } from '$lib/server/http/api';
import { csvAnswer } from '$lib/server/http/csv';
import { auditCsv } from '$lib/server/rooms/audits/csv';

export const GET = ({ locals, params }) =>
	answering(() => {
		const id = idFrom(params.id, 'audit');
		return csvAnswer(`audit-${id}.csv`, auditCsv(locals.db, id));
	});
