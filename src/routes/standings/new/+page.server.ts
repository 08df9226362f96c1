import { formOf } from '$lib/server/http/form';
import { createAction } from '../../watch/actions';
import { usualTyped, WatchFields, watchChoices } from '$lib/server/rooms/watch/form';

export const load = async ({ locals, parent }) => {
	const { clientId } = await parent();
	const choices = watchChoices(locals.db, 'standing', clientId);
	return {
		where: 'Standings › New standing',
		choices,
		form: await formOf(WatchFields, usualTyped('standing', choices))
	};
};

export const actions = { default: createAction('standing') };
