import { PERIODS } from '$core/watch/since';
import { watchList, listWatches } from '$lib/server/rooms/watch/view';

export const load = async ({ locals, parent, url }) => {
	const { clientId } = await parent();
	const since = url.searchParams.get('since');
	const period = PERIODS.find((candidate) => candidate === since) ?? 'month';
	return {
		where: 'Watch',
		period,
		rows: watchList(locals.db, clientId, period),
		watches: listWatches(locals.db, 'watch', clientId).map(({ id, name, clientName, state, nextAt }) => ({
			id,
			name,
			clientName,
			state,
			nextAt
		})),
		filter: {
			words: url.searchParams.get('words') ?? '',
			state: url.searchParams.get('is') ?? '',
			band: url.searchParams.get('band') ?? '',
			type: url.searchParams.get('type') ?? ''
		}
	};
};
