import { idFrom } from '$lib/server/http/api';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { blockActions } from '../actions';
import { hookSecret } from '$lib/server/rooms/watch/deliver';
import { watchView } from '$lib/server/rooms/watch/view';

export const load = ({ locals, params }) =>
	pageOr404(() => {
		const view = watchView(locals.db, idFrom(params.id, 'watch'));
		return {
			where: `Watch › ${view.name}`,
			view,
			secret: view.settings.notices.hook ? hookSecret(locals.db) : ''
		};
	});

export const actions = blockActions('watch');
