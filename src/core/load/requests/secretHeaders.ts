/** Headers that hold secrets: records keep their names. */
const SECRET = new Set(['cookie', 'set-cookie', 'authorization', 'proxy-authorization']);

/** Longest value of any other header that a record keeps. */
const MOST_LETTERS = 500;

/** Headers as a record keeps them. @param more further names, in small letters, whose values stay out */
export function recordedHeaders(
	headers: Iterable<readonly [name: string, value: string]>,
	more: readonly string[] = []
): [string, string][] {
	const isSecret = (name: string) => SECRET.has(name.toLowerCase()) || more.includes(name.toLowerCase());
	return Array.from(headers, ([name, value]) => [
		name,
		isSecret(name) ? '(not kept)' : String(value).slice(0, MOST_LETTERS)
	]);
}
