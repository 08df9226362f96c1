import { fetchComponents } from './partComponents';

export const load = async ({ data }) => ({ ...data, components: await fetchComponents(data.shown) });
