import { redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import { getDb } from '$lib/server/context';
import { formAction } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { removeReport } from '$lib/server/reports/commands';
import { freezeReport } from '$lib/server/reports/freeze';
import { reportView } from '$lib/server/reports/view';

export const load = ({ params }) => {
	const report = pageOr404(() => reportView(getDb(), Number(params.id)));
	return { where: `Reports › ${report.draft.title}`, report };
};

export const actions = {
	freeze: formAction((_, { params }: RequestEvent) => {
		const number = freezeReport(getDb(), Number(params.id));
		redirect(303, `/reports/${params.id}/versions/${number}`);
	}),
	delete: formAction((_, { params }: RequestEvent) => {
		removeReport(getDb(), Number(params.id));
		redirect(303, '/reports');
	})
};
