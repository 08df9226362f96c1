import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { LibraryComponent } from '$core/setups/component';
import { getDb } from '$lib/server/context';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { deleteComponent, existingComponent, saveComponent } from '$lib/server/setups/components';

export const GET = ({ params }) => answering(() => json(existingComponent(getDb(), idFrom(params.id, 'component'))));

/** Fields that are not sent stay as they are. */
export const PATCH = ({ params, request }) =>
	answering(async () => {
		const { id, ...component } = existingComponent(getDb(), idFrom(params.id, 'component'));
		saveComponent(getDb(), id, { ...component, ...(await readJson(request, v.partial(LibraryComponent))) });
		return json(existingComponent(getDb(), id));
	});

export const DELETE = ({ params }) =>
	answering(() => {
		deleteComponent(getDb(), idFrom(params.id, 'component'));
		return new Response(null, { status: 204 });
	});
