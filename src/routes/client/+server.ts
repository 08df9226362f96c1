import { redirect } from '@sveltejs/kit';

/** Choose the client whose things the lists show; works without scripts too. */
export const POST = async ({ request, cookies }) => {
	const form = await request.formData();
	const back = String(form.get('back') ?? '/');
	cookies.set('client', String(Number(form.get('client')) || ''), { path: '/', maxAge: 31_536_000, sameSite: 'lax', secure: false });
	redirect(303, back.startsWith('/') && !back.startsWith('//') ? back : '/');
};
