import * as v from 'valibot';
import { redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import { Text } from '$lib/server/http/fields';
import { formAction } from '$lib/server/http/form';
import { NotPossible } from '$lib/server/base/refusal';
import { createReport } from '$lib/server/rooms/reports/commands';
import { reportListView } from '$lib/server/rooms/reports/view';

export const load = async ({ locals, parent }) => {
	const { clientId } = await parent();
	return { where: 'Reports', clientId, ...reportListView(locals.db, clientId) };
};

function periodOf(from: string, until: string) {
	const isDay = (text: string) => /^\d{4}-\d{2}-\d{2}$/.test(text);
	if (!isDay(from) || !isDay(until)) throw new NotPossible(422, 'Write both days as 2026-11-27, or neither.', 'from');
	return { from, until };
}

const ReportFields = v.object({
	trial: Text,
	client: Text,
	from: Text,
	until: Text,
	load: Text,
	audit: Text,
	worklist: Text
});

export const actions = {
	create: formAction(
		ReportFields,
		({ trial, client, from, until, load: one, audit, worklist }, { locals }: RequestEvent) => {
			const id = createReport(locals.db, {
				trial: Number(trial) || null,
				clientId: Number(client) || null,
				load: Number(one) || null,
				audit: Number(audit) || null,
				worklist: worklist !== '',
				period: from || until ? periodOf(from, until) : null,
				title: '',
				language: null
			});
			redirect(303, `/reports/${id}`);
		}
	)
};
