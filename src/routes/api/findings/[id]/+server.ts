import { json } from '@sveltejs/kit';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { changeFindings, existingFinding, FindingChange } from '$lib/server/rooms/audits/commands';
import { worklistRow } from '$lib/server/rooms/audits/worklistView';

export const GET = ({ locals, params }) =>
	answering(() => json(worklistRow(existingFinding(locals.db, idFrom(params.id, 'finding')))));

/** `{ state?, owner?, note?, question? }` */
export const PATCH = ({ locals, params, request }) =>
	answering(async () => {
		const id = idFrom(params.id, 'finding');
		changeFindings(locals.db, [id], await readJson(request, FindingChange));
		return json(worklistRow(existingFinding(locals.db, id)));
	});
