import { getDb } from '$lib/server/context';
import { createAction } from '$lib/server/watch/actions';
import { usualTyped, watchChoices } from '$lib/server/watch/form';

export const load = async ({ parent }) => {
	const { clientId } = await parent();
	const choices = watchChoices(getDb(), 'standing', clientId);
	return { where: 'Standings › New standing', choices, typed: usualTyped('standing', choices) };
};

export const actions = { default: createAction('standing') };
