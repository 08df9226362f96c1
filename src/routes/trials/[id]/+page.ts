import { fetchOpened } from './lazyParts';

/** Parts that go to print with the answer. */
const PRINTED = ['arms', 'method'];

export const load = async ({ data, url }) => ({
	...data,
	opened: await fetchOpened([...(url.searchParams.get('open') ?? '').split(','), ...PRINTED])
});
