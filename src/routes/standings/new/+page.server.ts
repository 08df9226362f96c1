import { fail, redirect } from '@sveltejs/kit';
import { DEFAULT_PRIMARY } from '$core/metrics/catalogue';
import { StandingInput } from '$core/watch/input';
import { getDb } from '$lib/server/context';
import { formAction, withTyped } from '$lib/server/http/form';
import { requestReading } from '$lib/server/watch/blocks';
import { createWatch } from '$lib/server/watch/commands';
import { typedWatch, watchChoices, watchFrom, type TypedWatch } from '$lib/server/watch/form';
import { existingWatch } from '$lib/server/watch/watches';

export const load = async ({ parent }) => {
	const { clientId } = await parent();
	const choices = watchChoices(getDb());
	const typed: TypedWatch = {
		clientId: clientId ?? choices.clients[0]?.id ?? 0,
		name: '',
		pages: [],
		conditions: ['phone', 'desktop'],
		every: 'week',
		pattern: '',
		timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
		loads: '10',
		metrics: ['lcp', ...DEFAULT_PRIMARY.filter((id) => id !== 'lcp')],
		control: '',
		mail: '',
		hook: ''
	};
	return { where: 'Standings › New standing', choices, typed };
};

export const actions = {
	default: formAction((form: FormData) => {
		const typed = typedWatch(form);
		const read = watchFrom(typed, StandingInput);
		if ('issues' in read) return fail(422, { typed, issues: read.issues });
		const id = withTyped(typed, () => createWatch(getDb(), { ...read.value, kind: 'standing' }));
		if (typeof id !== 'number') return id;
		requestReading(getDb(), existingWatch(getDb(), id, 'standing'), { why: 'demand' });
		redirect(303, `/standings/${id}`);
	})
};
