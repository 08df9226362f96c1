import { fetchOpened } from './partComponents';

export const load = async ({ data }) => ({ ...data, components: await fetchOpened(data.shown) });
