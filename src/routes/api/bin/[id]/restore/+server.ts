import { getDb } from '$lib/server/context';
import { restoreBinned } from '$lib/server/desk/restore';
import { answering, idFrom } from '$lib/server/http/api';

export const POST = ({ params }) =>
	answering(() => {
		restoreBinned(getDb(), idFrom(params.id, 'bin'));
		return new Response(null, { status: 204 });
	});
