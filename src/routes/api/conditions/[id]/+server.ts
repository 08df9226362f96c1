import { json } from '@sveltejs/kit';
import { withoutSecrets } from '$core/load/conditions/conditions';
import { NotPossible } from '$lib/server/base/refusal';
import { answering, readConditions } from '$lib/server/http/api';
import { changeConditions, deleteConditions } from '$lib/server/rooms/conditions/commands';
import { findSaved } from '$lib/server/rooms/conditions/saved';

export const GET = ({ locals, params }) =>
	answering(() => {
		const saved = findSaved(locals.db, params.id);
		if (!saved) throw new NotPossible(404, `There are no conditions “${params.id}”.`);
		return json(withoutSecrets(saved));
	});

/** Secrets that are not shown stay as they are. */
export const PUT = ({ locals, params, request }) =>
	answering(async () => {
		changeConditions(locals.db, params.id, await readConditions(request));
		return json({ id: params.id });
	});

/** Of conditions that ship, only the changes go. */
export const DELETE = ({ locals, params }) =>
	answering(() => {
		deleteConditions(locals.db, params.id);
		return new Response(null, { status: 204 });
	});
