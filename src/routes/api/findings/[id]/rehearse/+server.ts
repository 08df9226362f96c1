import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { rehearseFinding } from '$lib/server/rooms/audits/rehearse';

/** A trial of its mend, made by the lab on the page's way. */
export const POST = ({ locals, params }) =>
	answering(() => {
		const trial = rehearseFinding(locals.db, idFrom(params.id, 'finding'));
		return json({ trial }, { status: 201, headers: { location: `/api/trials/${trial}` } });
	});
