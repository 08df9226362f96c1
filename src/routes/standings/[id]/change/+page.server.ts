import { idFrom } from '$lib/server/http/api';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { changeAction } from '../../../watch/actions';
import { changedForm } from '$lib/server/rooms/watch/form';

export const load = ({ locals, params }) =>
	pageOr404(() => {
		const form = changedForm(locals.db, idFrom(params.id, 'standing'), 'standing');
		return { where: `Standings › ${form.name} › Settings`, ...form };
	});

export const actions = { default: changeAction('standing') };
