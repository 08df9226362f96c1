import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { getDb } from '$lib/server/context';
import { requestOutages } from '$lib/server/loads/commands';

/** The page of a load once for each outside service and each way to fail; `GET /api/singles/:id` follows each. */
export const POST = ({ params }) =>
	answering(() => json({ singles: requestOutages(getDb(), idFrom(params.id, 'load')) }, { status: 202 }));
