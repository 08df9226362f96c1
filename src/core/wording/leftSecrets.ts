/** What an archive of a client does not have. */

export interface LeftSecret {
	kind: 'header' | 'cookie' | 'password' | 'typed' | 'preview' | 'hook';
	/** Of a header or cookie, a user, a visitor state, a site or a watch. */
	name: string;
}

const WORDS: Record<LeftSecret['kind'], (name: string) => string> = {
	header: (name) => `the value of the header ${name}`,
	cookie: (name) => `the value of the cookie ${name}`,
	password: (name) => `the password of ${name}`,
	typed: (name) => `what the visitor state “${name}” types`,
	preview: (name) => `the access to the preview of ${name}`,
	hook: (name) => `the address that the watch “${name}” posts to`
};

/** One sentence; empty where nothing was left out. */
export function describeLeftSecrets(left: readonly LeftSecret[]): string {
	if (left.length === 0) return '';
	const list = left.map(({ kind, name }) => WORDS[kind](name));
	return `Left where it came from, to be written anew: ${list.join(', ')}.`;
}
