import { conditionNames } from '$lib/server/conditions/saved';
import { getDb } from '$lib/server/context';
import { fieldPageView } from '$lib/server/field/view';
import { idFrom } from '$lib/server/http/api';
import { pageOr404 } from '$lib/server/http/pageOr404';

export const load = ({ params }) =>
	pageOr404(() => {
		const view = fieldPageView(getDb(), idFrom(params.page, 'page'));
		return { where: `Field › ${view.page.url}`, view, conditions: conditionNames(getDb()) };
	});
