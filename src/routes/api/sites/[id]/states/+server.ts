import { json } from '@sveltejs/kit';
import { VisitorState } from '$core/load/visitorState';
import { existingSite } from '$lib/server/clients/sites';
import { saveState, statesOfSite } from '$lib/server/clients/visitorStates';
import { getDb } from '$lib/server/context';
import { answering, idFrom, readJson } from '$lib/server/http/api';

/** By name alone: cookies and what steps type are secrets. */
export const GET = ({ params }) =>
	answering(() => {
		const { id } = existingSite(getDb(), idFrom(params.id, 'site'));
		return json(statesOfSite(getDb(), id).map(({ id: state, state: { name } }) => ({ id: state, name })));
	});

/** A state of the same name is replaced. */
export const POST = ({ params, request }) =>
	answering(async () => {
		const site = existingSite(getDb(), idFrom(params.id, 'site'));
		const id = saveState(getDb(), site.id, await readJson(request, VisitorState));
		return json({ id }, { status: 201 });
	});
