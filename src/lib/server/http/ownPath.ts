/** Where to go back to after a form: a path of Zafra, whatever was sent. */
const BASE = 'http://zafra.invalid';

/**
 * The path and query of an own address; `/` for anything that leads elsewhere (`//host`, `/\\host`, whole addresses).
 */
export function ownPath(wanted: string): string {
	if (!wanted.startsWith('/')) return '/';
	try {
		const url = new URL(wanted, BASE);
		return url.origin === BASE ? url.pathname + url.search : '/';
	} catch {
		return '/';
	}
}
