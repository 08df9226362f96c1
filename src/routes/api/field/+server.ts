import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { existingClient } from '$lib/server/clients/clients';
import { getDb } from '$lib/server/context';
import { requestField } from '$lib/server/field/gathering';
import { fieldView } from '$lib/server/field/view';
import { answering, idFrom, readJson } from '$lib/server/http/api';

const Wish = v.object({ clientId: v.number('Name the client by its number.') });

/** What the visitors of the chosen pages of `?client=ID` had. */
export const GET = ({ url }) =>
	answering(() =>
		json(fieldView(getDb(), existingClient(getDb(), idFrom(url.searchParams.get('client') ?? '', 'client'))))
	);

/** Ask the panel for the windows that are missing. */
export const POST = ({ request }) =>
	answering(async () => {
		const { id } = existingClient(getDb(), (await readJson(request, Wish)).clientId);
		requestField(getDb(), id);
		return json({ isGathering: true }, { status: 202 });
	});
