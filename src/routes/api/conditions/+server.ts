import { json } from '@sveltejs/kit';
import { withoutSecrets } from '$core/load/conditions/conditions';
import { answering, readConditions } from '$lib/server/http/api';
import { createConditions } from '$lib/server/rooms/conditions/commands';
import { listConditions } from '$lib/server/rooms/conditions/view';

export const GET = ({ locals }) => json(listConditions(locals.db).map(withoutSecrets));

/** With `?from=KEY`, secrets that are not shown go over from those conditions. */
export const POST = ({ locals, url, request }) =>
	answering(async () => {
		const conditions = await readConditions(request);
		createConditions(locals.db, conditions, url.searchParams.get('from'));
		return json({ id: conditions.id }, { status: 201 });
	});
