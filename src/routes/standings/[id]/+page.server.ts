import { getDb } from '$lib/server/context';
import { idFrom } from '$lib/server/http/api';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { standingView } from '$lib/server/standings/view';
import { blockActions } from '$lib/server/watch/actions';

export const load = ({ params }) =>
	pageOr404(() => {
		const view = standingView(getDb(), idFrom(params.id, 'standing'));
		return { where: `Standings › ${view.name}`, view };
	});

export const actions = blockActions('standing');
