import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { getDb } from '$lib/server/context';
import { nudgeArm } from '$lib/server/trials/commands';

/** One load with simulated interaction under each of the trial's conditions; `GET /api/singles/:id` follows each. */
export const POST = ({ params }) =>
	answering(() => {
		const singles = nudgeArm(getDb(), idFrom(params.id, 'trial'), idFrom(params.arm, 'arm'));
		return json({ singles }, { status: 202 });
	});
