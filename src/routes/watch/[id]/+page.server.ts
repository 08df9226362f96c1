import { redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import { getDb } from '$lib/server/context';
import { idFrom } from '$lib/server/http/api';
import { formAction } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { cancelReading, requestReading } from '$lib/server/watch/blocks';
import { deleteWatch, setWatchState } from '$lib/server/watch/commands';
import { hookSecret } from '$lib/server/watch/deliver';
import { watchView } from '$lib/server/watch/view';
import { existingWatch } from '$lib/server/watch/watches';

export const load = ({ params }) =>
	pageOr404(() => {
		const view = watchView(getDb(), idFrom(params.id, 'watch'));
		return {
			where: `Watch › ${view.name}`,
			view,
			secret: view.settings.notices.hook ? hookSecret(getDb()) : ''
		};
	});

const watchFrom = ({ params }: RequestEvent) => existingWatch(getDb(), idFrom(params.id ?? '', 'watch'), 'watch');

export const actions = {
	read: formAction((_form: FormData, event: RequestEvent) => {
		requestReading(getDb(), watchFrom(event), { why: 'demand' });
	}),
	stop: formAction((_form: FormData, event: RequestEvent) => cancelReading(getDb(), watchFrom(event))),
	pause: formAction((_form: FormData, event: RequestEvent) =>
		setWatchState(getDb(), watchFrom(event).id, 'watch', 'paused')
	),
	resume: formAction((_form: FormData, event: RequestEvent) =>
		setWatchState(getDb(), watchFrom(event).id, 'watch', 'active')
	),
	delete: formAction((_form: FormData, event: RequestEvent) => {
		deleteWatch(getDb(), watchFrom(event).id, 'watch');
		redirect(303, '/watch');
	})
};
