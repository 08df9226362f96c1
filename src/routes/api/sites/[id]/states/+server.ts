import { json } from '@sveltejs/kit';
import { VisitorState } from '$core/load/journey/visitorState';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { existingSite, saveState, statesOfSite } from '$lib/server/rooms/clients/view';

/** By name alone: cookies and what steps type are secrets. */
export const GET = ({ locals, params }) =>
	answering(() => {
		const { id } = existingSite(locals.db, idFrom(params.id, 'site'));
		return json(statesOfSite(locals.db, id).map(({ id: state, state: { name } }) => ({ id: state, name })));
	});

/** A state of the same name is replaced. */
export const POST = ({ locals, params, request }) =>
	answering(async () => {
		const site = existingSite(locals.db, idFrom(params.id, 'site'));
		const id = saveState(locals.db, site.id, await readJson(request, VisitorState));
		return json({ id }, { status: 201 });
	});
