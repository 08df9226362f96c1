import { getDb } from '$lib/server/context';
import { idFrom } from '$lib/server/http/api';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { changeAction } from '$lib/server/watch/actions';
import { changedForm } from '$lib/server/watch/form';

export const load = ({ params }) =>
	pageOr404(() => {
		const form = changedForm(getDb(), idFrom(params.id, 'watch'), 'watch');
		return { where: `Watch › ${form.name} › Settings`, ...form };
	});

export const actions = { default: changeAction('watch') };
