import { getDb } from '$lib/server/context';
import { search } from '$lib/server/search/search';

export const load = ({ url }) => {
	const query = url.searchParams.get('q') ?? '';
	return { where: 'Search', query, hits: search(getDb(), query) };
};
