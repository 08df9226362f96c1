/** Changes of the text of a file: by a pattern, and by where it is fetched from. */
import type { Rewrite } from './rewrite';
import { isMatching } from '../load/requests/pattern';

/** Under it the page's own host serves files of others. */
export const OWN_HOST_PATH = '/.zafra-from/';

/** @param url of the file @returns the text, and how often each rewrite of the list was done in it */
export function editText(text: string, url: string, rewrites: readonly Rewrite[]): { text: string; applied: number[] } {
	const applied = rewrites.map(() => 0);
	let now = text;
	rewrites.forEach((rewrite, i) => {
		if (rewrite.do === 'text' && isMatching(url, rewrite.address)) {
			const pattern = new RegExp(rewrite.isPattern ? rewrite.find : quoted(rewrite.find), 'g');
			applied[i] = now.match(pattern)?.length ?? 0;
			now = rewrite.isPattern
				? now.replace(pattern, rewrite.replacement)
				: now.replaceAll(rewrite.find, () => rewrite.replacement);
		}
		if (rewrite.do === 'own-host') {
			const pattern = new RegExp(`(?:https?:)?(\\\\?/)\\1${quoted(rewrite.host)}\\1`, 'g');
			applied[i] = now.match(pattern)?.length ?? 0;
			// In data inside scripts slashes may be escaped: they stay as they are written.
			now = now.replace(pattern, (_, slash: string) => `${OWN_HOST_PATH}${rewrite.host}/`.replaceAll('/', () => slash));
		}
	});
	return { text: now, applied };
}

/** The real address of what the page's own host serves for another one; null for what is its own. */
export function realAddress(url: string): string | null {
	const { protocol, pathname, search } = new URL(url);
	if (!pathname.startsWith(OWN_HOST_PATH)) return null;
	const [host, ...rest] = pathname.slice(OWN_HOST_PATH.length).split('/');
	return host ? `${protocol}//${host}/${rest.join('/')}${search}` : null;
}

const quoted = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
