import { formOf } from '$lib/server/http/form';
import { createAction } from '../actions';
import { usualTyped, WatchFields, watchChoices } from '$lib/server/rooms/watch/form';

export const load = async ({ locals, parent }) => {
	const { clientId } = await parent();
	const choices = watchChoices(locals.db, 'watch', clientId);
	return { where: 'Watch › New watch', choices, form: await formOf(WatchFields, usualTyped('watch', choices)) };
};

export const actions = { default: createAction('watch') };
