import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { getDb } from '$lib/server/context';
import { checkLateWork } from '$lib/server/trials/commands';

/** Under each of the trial's conditions one load that waits on and one with an interaction. */
export const POST = ({ params }) =>
	answering(() => {
		const singles = checkLateWork(getDb(), idFrom(params.id, 'trial'), idFrom(params.arm, 'arm'));
		return json({ singles }, { status: 202 });
	});
