import { json } from '@sveltejs/kit';
import { labNow } from '$lib/server/desk/labNow';

export const GET = ({ locals }) => {
	const lab = labNow(locals.db);
	const problem = locals.damage() ?? lab.problem;
	return json({
		ok: problem === null,
		version: locals.settings.version,
		runner: lab.state,
		sandbox: lab.state === 'off' ? null : !lab.unprotected,
		...(problem ? { problem } : {})
	});
};
