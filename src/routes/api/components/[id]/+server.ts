import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { LibraryComponent } from '$core/setups/component';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { deleteComponent } from '$lib/server/rooms/setups/components';
import { existingComponent, saveComponent } from '$lib/server/rooms/setups/view';

export const GET = ({ locals, params }) =>
	answering(() => json(existingComponent(locals.db, idFrom(params.id, 'component'))));

/** Fields that are not sent stay as they are. */
export const PATCH = ({ locals, params, request }) =>
	answering(async () => {
		const { id, ...component } = existingComponent(locals.db, idFrom(params.id, 'component'));
		saveComponent(locals.db, id, { ...component, ...(await readJson(request, v.partial(LibraryComponent))) });
		return json(existingComponent(locals.db, id));
	});

export const DELETE = ({ locals, params }) =>
	answering(() => {
		deleteComponent(locals.db, idFrom(params.id, 'component'));
		return new Response(null, { status: 204 });
	});
