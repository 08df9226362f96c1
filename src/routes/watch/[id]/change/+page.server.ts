import { fail, redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import { WatchInput } from '$core/watch/input';
import { getDb } from '$lib/server/context';
import { idFrom } from '$lib/server/http/api';
import { formAction, withTyped } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { changeWatch } from '$lib/server/watch/commands';
import { typedFrom, typedWatch, watchChoices, watchFrom } from '$lib/server/watch/form';
import { existingWatch, pagesOfWatch } from '$lib/server/watch/watches';

export const load = ({ params }) =>
	pageOr404(() => {
		const watch = existingWatch(getDb(), idFrom(params.id, 'watch'), 'watch');
		return {
			where: `Watch › ${watch.name} › Settings`,
			watch: { id: watch.id, name: watch.name },
			choices: watchChoices(getDb()),
			typed: typedFrom(watch, pagesOfWatch(getDb(), watch.id))
		};
	});

export const actions = {
	default: formAction((form: FormData, { params }: RequestEvent) => {
		const id = idFrom(params.id ?? '', 'watch');
		const typed = typedWatch(form);
		const read = watchFrom(typed, WatchInput);
		if ('issues' in read) return fail(422, { typed, issues: read.issues });
		const refused = withTyped(typed, () => changeWatch(getDb(), id, { ...read.value, kind: 'watch' }));
		if (refused) return refused;
		redirect(303, `/watch/${id}`);
	})
};
