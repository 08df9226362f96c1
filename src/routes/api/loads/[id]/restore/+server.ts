import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { getDb } from '$lib/server/context';
import { excludeLoad } from '$lib/server/loads/commands';

export const POST = ({ params }) =>
	answering(() => {
		const id = idFrom(params.id, 'load');
		excludeLoad(getDb(), id, null);
		return json({ id });
	});
