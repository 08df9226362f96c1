import { browser } from '$app/environment';

/** In the browser a page is taken over in a task of its own: between reading it and that, what was pressed is heard. */
export const load = async ({ data }) => {
	if (browser) await new Promise((next) => setTimeout(next));
	return data;
};
