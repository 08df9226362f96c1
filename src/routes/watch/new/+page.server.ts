import { fail, redirect } from '@sveltejs/kit';
import { DEFAULT_PRIMARY } from '$core/metrics/catalogue';
import { WatchInput } from '$core/watch/input';
import { getDb } from '$lib/server/context';
import { formAction, withTyped } from '$lib/server/http/form';
import { requestReading } from '$lib/server/watch/blocks';
import { createWatch } from '$lib/server/watch/commands';
import { typedWatch, watchChoices, watchFrom, type TypedWatch } from '$lib/server/watch/form';
import { existingWatch } from '$lib/server/watch/watches';

export const load = async ({ parent }) => {
	const { clientId } = await parent();
	const choices = watchChoices(getDb());
	const client = choices.clients.find(({ id }) => id === clientId) ?? choices.clients[0];
	const typed: TypedWatch = {
		clientId: client?.id ?? 0,
		name: '',
		pages: (client?.pages ?? []).filter(({ isChosen, role }) => isChosen && role === 'own').map(({ id }) => id),
		conditions: ['phone', 'desktop'],
		every: 'week',
		pattern: '',
		timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
		loads: '5',
		metrics: [...DEFAULT_PRIMARY],
		control: '',
		mail: '',
		hook: ''
	};
	return { where: 'Watch › New watch', choices, typed };
};

export const actions = {
	default: formAction((form: FormData) => {
		const typed = typedWatch(form);
		const read = watchFrom(typed, WatchInput);
		if ('issues' in read) return fail(422, { typed, issues: read.issues });
		const id = withTyped(typed, () => createWatch(getDb(), { ...read.value, kind: 'watch' }));
		if (typeof id !== 'number') return id;
		// A history begins with its first reading.
		requestReading(getDb(), existingWatch(getDb(), id, 'watch'), { why: 'demand' });
		redirect(303, `/watch/${id}`);
	})
};
