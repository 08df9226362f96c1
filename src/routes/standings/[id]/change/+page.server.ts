import { idFrom } from '$lib/server/http/api';
import { formOf } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { changeAction } from '../../../watch/actions';
import { changedForm, WatchFields } from '$lib/server/rooms/watch/form';

export const load = async ({ locals, params }) => {
	const { name, choices, typed } = pageOr404(() => changedForm(locals.db, idFrom(params.id, 'standing'), 'standing'));
	return { where: `Standings › ${name} › Settings`, name, choices, form: await formOf(WatchFields, typed) };
};

export const actions = { default: changeAction('standing') };
