import { redirect } from '@sveltejs/kit';
import { formAction, textOf } from '$lib/server/http/form';
import { NotPossible } from '$lib/server/base/refusal';
import { createReport } from '$lib/server/rooms/reports/commands';
import { reportListView } from '$lib/server/rooms/reports/view';

export const load = async ({ locals, parent }) => {
	const { clientId } = await parent();
	return { where: 'Reports', clientId, ...reportListView(locals.db, clientId) };
};

const numberOf = (form: FormData, name: string) => Number(textOf(form, name)) || null;

function periodOf(from: string, until: string) {
	const isDay = (text: string) => /^\d{4}-\d{2}-\d{2}$/.test(text);
	if (!isDay(from) || !isDay(until)) throw new NotPossible(422, 'Write both days as 2026-11-27, or neither.', 'from');
	return { from, until };
}

export const actions = {
	create: formAction((form, { locals }) => {
		const [from, until] = [textOf(form, 'from'), textOf(form, 'until')];
		const id = createReport(locals.db, {
			trial: numberOf(form, 'trial'),
			clientId: numberOf(form, 'client'),
			period: from || until ? periodOf(from, until) : null,
			title: '',
			language: null
		});
		redirect(303, `/reports/${id}`);
	})
};
