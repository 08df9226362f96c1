import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { nudgeArm } from '$lib/server/rooms/trials/commands';

/** One load with simulated interaction under each of the trial's conditions; `GET /api/singles/:id` follows each. */
export const POST = ({ locals, params }) =>
	answering(() => {
		const singles = nudgeArm(locals.db, idFrom(params.id, 'trial'), idFrom(params.arm, 'arm'));
		return json({ singles }, { status: 202 });
	});
