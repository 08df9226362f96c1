/** Stands in for what SvelteKit gives a page: nothing navigates while a component is rendered. */

const nothing = () => undefined;

export const goto = nothing;
export const invalidate = nothing;
export const invalidateAll = nothing;
export const afterNavigate = nothing;
export const beforeNavigate = nothing;
export const onNavigate = nothing;
export const replaceState = nothing;
export const pushState = nothing;
export const preloadData = nothing;
export const enhance = nothing;
export const applyAction = nothing;
export const deserialize = JSON.parse;
export const browser = false;
export const dev = false;
export const base = '';
export const resolve = (path: string) => path;
/** A test sets what the page's address and data shall be. */
export const page = {
	url: new URL('http://zafra.test/'),
	params: {} as Record<string, string>,
	data: {} as Record<string, unknown>,
	form: null as unknown,
	status: 200,
	error: null as { message: string } | null
};
export const navigating = { to: null };
export const updated = { current: false };
