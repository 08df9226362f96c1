import { search } from '$lib/server/desk/search';

export const load = ({ locals, url }) => {
	const query = url.searchParams.get('q') ?? '';
	return { where: 'Search', query, hits: search(locals.db, query) };
};
