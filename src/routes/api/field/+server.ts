import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { existingClient } from '$lib/server/rooms/clients/clients';
import { requestField } from '$lib/server/rooms/field/gathering';
import { fieldView } from '$lib/server/rooms/field/view';
import { answering, idFrom, readJson } from '$lib/server/http/api';

const Wish = v.object({ clientId: v.number('Name the client by its number.') });

/** What the visitors of the chosen pages of `?client=ID` had. */
export const GET = ({ locals, url }) =>
	answering(() =>
		json(fieldView(locals.db, existingClient(locals.db, idFrom(url.searchParams.get('client') ?? '', 'client'))))
	);

/** Ask the panel for the windows that are missing. */
export const POST = ({ locals, request }) =>
	answering(async () => {
		const { id } = existingClient(locals.db, (await readJson(request, Wish)).clientId);
		requestField(locals.db, id);
		return json({ isGathering: true }, { status: 202 });
	});
