import { TEMPLATES } from '$core/trial/design/templates';
import { ROWS, ROWS_ON_A_PHONE, trialListView } from '$lib/server/rooms/trials/listView';

/** As browsers on phones name themselves (MDN: "look for Mobi anywhere in the user agent"). */
const isPhone = (request: Request) => /Mobi/.test(request.headers.get('user-agent') ?? '');

export const load = async ({ locals, parent, request, url }) => {
	const { clientId } = await parent();
	const param = (name: string) => url.searchParams.get(name) ?? '';
	const filter = {
		words: param('q'),
		status: param('state'),
		kind: param('kind'),
		tone: param('verdict'),
		host: param('site')
	};
	return {
		where: 'Trials',
		filter,
		templates: TEMPLATES.map(({ id, name }) => ({ id, name })),
		...trialListView(
			locals.db,
			{ clientId, ...filter },
			Number(param('page')),
			isPhone(request) ? ROWS_ON_A_PHONE : ROWS
		)
	};
};
