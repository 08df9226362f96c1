import { getDb } from '$lib/server/context';
import { createAction } from '$lib/server/watch/actions';
import { usualTyped, watchChoices } from '$lib/server/watch/form';

export const load = async ({ parent }) => {
	const { clientId } = await parent();
	const choices = watchChoices(getDb(), 'watch', clientId);
	return { where: 'Watch › New watch', choices, typed: usualTyped('watch', choices) };
};

export const actions = { default: createAction('watch') };
