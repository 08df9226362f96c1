import { getDb } from '$lib/server/context';
import { idFrom } from '$lib/server/http/api';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { blockActions } from '$lib/server/watch/actions';
import { hookSecret } from '$lib/server/watch/deliver';
import { watchView } from '$lib/server/watch/view';

export const load = ({ params }) =>
	pageOr404(() => {
		const view = watchView(getDb(), idFrom(params.id, 'watch'));
		return {
			where: `Watch › ${view.name}`,
			view,
			secret: view.settings.notices.hook ? hookSecret(getDb()) : ''
		};
	});

export const actions = blockActions('watch');
