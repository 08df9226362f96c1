import { json } from '@sveltejs/kit';
import { LibraryComponent } from '$core/setups/component';
import { getDb } from '$lib/server/context';
import { answering, readJson } from '$lib/server/http/api';
import { listComponents, saveComponent } from '$lib/server/setups/components';

export const GET = () => json(listComponents(getDb()));

export const POST = ({ request }) =>
	answering(async () => {
		const id = saveComponent(getDb(), null, await readJson(request, LibraryComponent));
		return json({ id }, { status: 201, headers: { location: `/api/components/${id}` } });
	});
