/** Where to go back to after a form: a path of Zafra, whatever was sent. */
const BASE = 'http://zafra.invalid';

/**
 * The path and query of an own address; `/` for anything that leads elsewhere (`//host`, `/\\host`, whole addresses).
 */
export function ownPath(wanted: string): string {
	if (!wanted.startsWith('/')) return '/';
	try {
		const { origin, pathname, search } = new URL(wanted, BASE);
		// `/.//host` is an own path here, and would be another host's to a browser that is sent there.
		return origin === BASE && !pathname.startsWith('//') ? pathname + search : '/';
	} catch {
		return '/';
	}
}
