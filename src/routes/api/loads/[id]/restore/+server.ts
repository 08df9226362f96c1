import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { excludeLoad } from '$lib/server/rooms/loads/commands';

export const POST = ({ locals, params }) =>
	answering(() => {
		const id = idFrom(params.id, 'load');
		excludeLoad(locals.db, id, null);
		return json({ id });
	});
