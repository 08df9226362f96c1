import { fetchOpened } from './lazyParts';

export const load = async ({ data, url }) => ({
	...data,
	opened: await fetchOpened((url.searchParams.get('open') ?? '').split(','))
});
