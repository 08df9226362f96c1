import { error, redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import { idFrom } from '$lib/server/access/api';
import { formAction } from '$lib/server/access/form';
import { getDb } from '$lib/server/context';
import { isLargeRecord } from '$lib/server/db/loads';
import { loadView } from '$lib/server/queue/loadView';
import { nudgeAgain } from '$lib/server/queue/singles';
import { heavily } from '$lib/server/work/heavy';

export const load = async ({ params }) => {
	const id = Number(params.id);
	const view = isLargeRecord(getDb(), id) ? await heavily('loadView', id) : loadView(getDb(), id);
	if (!view) error(404, `There is no load ${params.id}.`);
	return view;
};

export const actions = {
	nudge: formAction((_, { params }: RequestEvent) =>
		redirect(303, `/loads?waiting=${nudgeAgain(getDb(), idFrom(params.id, 'load'))}`)
	)
};
