import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { getDb } from '$lib/server/context';
import { requestAsVisitor } from '$lib/server/loads/commands';

/** The page of a load once more, asked as an ordinary browser. */
export const POST = ({ params }) =>
	answering(() => {
		const id = requestAsVisitor(getDb(), idFrom(params.id, 'load'));
		return json({ id }, { status: 202, headers: { location: `/api/singles/${id}` } });
	});
