import { redirect } from '@sveltejs/kit';
import { errorAnswer } from '$lib/server/http/api';
import { readForm } from '$lib/server/http/form';
import { ownPath } from '$lib/server/http/ownPath';
import { NotPossible } from '$lib/server/base/refusal';

/** Choose the client whose things the lists show; works without scripts too. */
export const POST = async ({ request, cookies }) => {
	let form: FormData;
	try {
		form = await readForm(request);
	} catch (error) {
		if (error instanceof NotPossible) return errorAnswer(error.status, error.message);
		throw error;
	}
	const id = Number(form.get('client'));
	cookies.set('client', Number.isSafeInteger(id) && id > 0 ? String(id) : '', {
		path: '/',
		maxAge: 31_536_000,
		sameSite: 'lax',
		secure: false
	});
	redirect(303, ownPath(String(form.get('back') ?? '')));
};
