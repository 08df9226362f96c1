import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { checkLateWork } from '$lib/server/rooms/trials/commands';

/** Under each of the trial's conditions one load that waits on and one with an interaction. */
export const POST = ({ locals, params }) =>
	answering(() => {
		const singles = checkLateWork(locals.db, idFrom(params.id, 'trial'), idFrom(params.arm, 'arm'));
		return json({ singles }, { status: 202 });
	});
