/**
 * How much of two pages' markup is the same, by their signatures: of min-hashes under the same functions the share that
 * is equal estimates the Jaccard likeness of the sets (Broder 1997), with 128 of them to about 0.04.
 */

/** Below this a page is built otherwise than it was: another template, or the same one rebuilt (house). */
export const OTHER_TEMPLATE = 0.5;

/** @returns 0 to 1; null where one of both is unknown */
export function markupLikeness(a: readonly number[], b: readonly number[]): number | null {
	if (!a.length || a.length !== b.length) return null;
	return a.filter((hash, i) => hash === b[i]).length / a.length;
}

const BYTE = 256;

/**
 * A signature in short: of each min-hash the lowest eight bits (Li and König 2010), so that 1 in 256 that differ look
 * equal. @returns base64; empty for an empty signature
 */
export const markupCode = (signature: readonly number[]): string =>
	btoa(String.fromCharCode(...signature.map((hash) => ((hash % BYTE) + BYTE) % BYTE)));

/** Whether two codes are of one template; true where one of both is unknown, so that nothing is lost by not knowing. */
export function isSameTemplate(a: string, b: string): boolean {
	const bytes = (code: string) => [...atob(code)].map((name) => name.charCodeAt(0));
	return (markupLikeness(bytes(a), bytes(b)) ?? 1) >= OTHER_TEMPLATE;
}
