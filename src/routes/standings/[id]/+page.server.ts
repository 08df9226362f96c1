import { idFrom } from '$lib/server/http/api';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { standingView } from '$lib/server/rooms/standings/view';
import { blockActions } from '../../watch/actions';

export const load = ({ locals, params }) =>
	pageOr404(() => {
		const view = standingView(locals.db, idFrom(params.id, 'standing'));
		return { where: `Standings › ${view.name}`, view };
	});

export const actions = blockActions('standing');
