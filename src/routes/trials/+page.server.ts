import { TEMPLATES } from '$core/trial/templates';
import { getDb } from '$lib/server/context';
import { trialListView } from '$lib/server/trials/listView';

export const load = async ({ parent, url }) => {
	const { clientId } = await parent();
	const asked = (name: string) => url.searchParams.get(name) ?? '';
	const filter = {
		words: asked('q'),
		status: asked('state'),
		kind: asked('kind'),
		tone: asked('verdict'),
		host: asked('site')
	};
	return {
		where: 'Trials',
		filter,
		templates: TEMPLATES.map(({ id, name }) => ({ id, name })),
		...trialListView(getDb(), { clientId, ...filter }, Number(asked('page')))
	};
};
