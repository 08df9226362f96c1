/** Whether a served page has come to rest: the same validators, sizes and cache headers on repeated fetches. */

export interface FetchSeen {
	/** ms since the waiting began. */
	atMs: number;
	/** From asking to the last byte, ms; absent in what was seen before it was noted. */
	tookMs?: number;
	status: number | null;
	/** Of the body, decoded. */
	bytes: number | null;
	etag: string | null;
	lastModified: string | null;
	cacheControl: string | null;
	/** What a cache said: hit, miss, or null. */
	cache: 'hit' | 'miss' | null;
	/** Why there was no answer. */
	problem: string | null;
}

export interface StabilityResult {
	stable: boolean;
	tookMs: number;
	fetches: FetchSeen[];
}

/** Fetches in a row that must be alike (house). */
export const ALIKE_IN_A_ROW = 3;
/** Sizes within this share are the same: pages carry tokens of changing length (house). */
const SIZE_WITHIN = 0.005;

function isAlike(a: FetchSeen, b: FetchSeen): boolean {
	if (a.problem || b.problem || a.status !== b.status) return false;
	if (
		a.etag !== b.etag ||
		a.lastModified !== b.lastModified ||
		a.cacheControl !== b.cacheControl ||
		a.cache !== b.cache
	)
		return false;
	return (
		a.bytes !== null && b.bytes !== null && Math.abs(a.bytes - b.bytes) <= SIZE_WITHIN * Math.max(a.bytes, b.bytes, 1)
	);
}

/** Whether the last fetches are alike. */
export function isStable(fetches: readonly FetchSeen[]): boolean {
	const last = fetches.slice(-ALIKE_IN_A_ROW);
	return last.length === ALIKE_IN_A_ROW && last.every((seen) => isAlike(seen, last[0]!));
}

/** What a series of fetches says. */
export function stabilityOf(fetches: readonly FetchSeen[]): StabilityResult {
	return { stable: isStable(fetches), tookMs: Math.round(fetches.at(-1)?.atMs ?? 0), fetches: [...fetches] };
}

/** A fetch that got no answer. @param atMs since the waiting began */
export function failedFetch(problem: string, atMs = 0): FetchSeen {
	return {
		atMs,
		status: null,
		bytes: null,
		etag: null,
		lastModified: null,
		cacheControl: null,
		cache: null,
		problem
	};
}
