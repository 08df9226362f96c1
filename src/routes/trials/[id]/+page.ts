import { fetchOpened } from './lazyParts';
import { unpackSheet } from './packedSheet';

export const load = async ({ data, url }) => ({
	...unpackSheet(data),
	opened: await fetchOpened((url.searchParams.get('open') ?? '').split(','))
});
