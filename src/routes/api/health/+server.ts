import { json } from '@sveltejs/kit';
import { getDb, getSettings } from '$lib/server/context';
import { labNow } from '$lib/server/labs/view';

export const GET = () => {
	const lab = labNow(getDb());
	return json({
		ok: lab.problem === null,
		version: getSettings().version,
		runner: lab.state,
		sandbox: lab.state === 'off' ? null : !lab.unprotected,
		...(lab.problem ? { problem: lab.problem } : {})
	});
};
