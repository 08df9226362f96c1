import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { requestAsVisitor } from '$lib/server/rooms/loads/commands';

/** The page of a load once more, asked as an ordinary browser. */
export const POST = ({ locals, params }) =>
	answering(() => {
		const id = requestAsVisitor(locals.db, idFrom(params.id, 'load'));
		return json({ id }, { status: 202, headers: { location: `/api/singles/${id}` } });
	});
