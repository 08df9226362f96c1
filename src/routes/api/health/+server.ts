import { json } from '@sveltejs/kit';
import { getDamage, getDb, getSettings } from '$lib/server/context';
import { labNow } from '$lib/server/labs/view';

export const GET = () => {
	const lab = labNow(getDb());
	const problem = getDamage() ?? lab.problem;
	return json({
		ok: problem === null,
		version: getSettings().version,
		runner: lab.state,
		sandbox: lab.state === 'off' ? null : !lab.unprotected,
		...(problem ? { problem } : {})
	});
};
