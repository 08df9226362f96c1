import { redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import { BUTTON } from '$lib/server/http/fields';
import { formAction } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { removeReport } from '$lib/server/rooms/reports/commands';
import { freezeReport } from '$lib/server/rooms/reports/freeze';
import { reportView } from '$lib/server/rooms/reports/view';

export const load = ({ locals, params }) => {
	const report = pageOr404(() => reportView(locals.db, Number(params.id)));
	return { where: `Reports › ${report.draft.title}`, report };
};

export const actions = {
	freeze: formAction(BUTTON, (_, { locals, params }: RequestEvent) => {
		const number = freezeReport(locals.db, Number(params.id));
		redirect(303, `/reports/${params.id}/versions/${number}`);
	}),
	delete: formAction(BUTTON, (_, { locals, params }: RequestEvent) => {
		removeReport(locals.db, Number(params.id));
		redirect(303, '/reports');
	})
};
