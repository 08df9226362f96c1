import { restoreBinned } from '$lib/server/desk/restore';
import { answering, idFrom } from '$lib/server/http/api';

export const POST = ({ locals, params }) =>
	answering(() => {
		restoreBinned(locals.db, idFrom(params.id, 'bin'));
		return new Response(null, { status: 204 });
	});
