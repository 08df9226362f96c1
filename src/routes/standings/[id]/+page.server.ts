import { redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import { getDb } from '$lib/server/context';
import { idFrom } from '$lib/server/http/api';
import { formAction } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { standingView } from '$lib/server/standings/view';
import { cancelReading, requestReading } from '$lib/server/watch/blocks';
import { deleteWatch, setWatchState } from '$lib/server/watch/commands';
import { existingWatch } from '$lib/server/watch/watches';

export const load = ({ params }) =>
	pageOr404(() => {
		const view = standingView(getDb(), idFrom(params.id, 'standing'));
		return { where: `Standings › ${view.name}`, view };
	});

const standingOf = ({ params }: RequestEvent) =>
	existingWatch(getDb(), idFrom(params.id ?? '', 'standing'), 'standing');

export const actions = {
	read: formAction((_form: FormData, event: RequestEvent) => {
		requestReading(getDb(), standingOf(event), { why: 'demand' });
	}),
	stop: formAction((_form: FormData, event: RequestEvent) => cancelReading(getDb(), standingOf(event))),
	pause: formAction((_form: FormData, event: RequestEvent) =>
		setWatchState(getDb(), standingOf(event).id, 'standing', 'paused')
	),
	resume: formAction((_form: FormData, event: RequestEvent) =>
		setWatchState(getDb(), standingOf(event).id, 'standing', 'active')
	),
	delete: formAction((_form: FormData, event: RequestEvent) => {
		deleteWatch(getDb(), standingOf(event).id, 'standing');
		redirect(303, '/standings');
	})
};
