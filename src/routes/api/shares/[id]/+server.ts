import { getDb } from '$lib/server/context';
import { answering, idFrom } from '$lib/server/http/api';
import { revokeShare } from '$lib/server/reports/shares';

/** Ends a link at once. */
export const DELETE = ({ params }) =>
	answering(() => {
		revokeShare(getDb(), idFrom(params.id, 'link'));
		return new Response(null, { status: 204 });
	});
