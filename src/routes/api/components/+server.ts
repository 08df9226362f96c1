import { json } from '@sveltejs/kit';
import { LibraryComponent } from '$core/setups/component';
import { answering, readJson } from '$lib/server/http/api';
import { listComponents, saveComponent } from '$lib/server/rooms/setups/view';

export const GET = ({ locals }) => json(listComponents(locals.db));

export const POST = ({ locals, request }) =>
	answering(async () => {
		const id = saveComponent(locals.db, null, await readJson(request, LibraryComponent));
		return json({ id }, { status: 201, headers: { location: `/api/components/${id}` } });
	});
