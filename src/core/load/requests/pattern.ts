/** Patterns of addresses, as they are written in forms. */

/** Whether an address fits a pattern in which `*` stands for anything; without one it is found anywhere. */
export function isMatching(url: string, pattern: string): boolean {
	if (!pattern.includes('*')) return url.includes(pattern);
	const source = pattern
		.split('*')
		.map((part) => part.replace(/[.+?^${}()|[\]\\]/g, '\\$&'))
		.join('.*');
	return new RegExp(`^${source}$`, 's').test(url);
}
