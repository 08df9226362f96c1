/** Whether a served page has come to rest: the same validators, sizes and cache headers on repeated fetches. */

export interface FetchSeen {
	/** ms since the waiting began. */
	atMs: number;
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
	/** Sentence for the sheet. */
	words: string;
	fetches: FetchSeen[];
}

/** Fetches in a row that must be alike (house). */
export const ALIKE_IN_A_ROW = 3;
/** Sizes within this share are the same: pages carry tokens of changing length (house). */
const SIZE_WITHIN = 0.005;

function alike(a: FetchSeen, b: FetchSeen): boolean {
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

/** The last fetches are alike. */
export function isStable(fetches: readonly FetchSeen[]): boolean {
	const last = fetches.slice(-ALIKE_IN_A_ROW);
	return last.length === ALIKE_IN_A_ROW && last.every((one) => alike(one, last[0]!));
}

/** What differed between the last two fetches, in words. */
function whatDiffers(fetches: readonly FetchSeen[]): string {
	const [before, after] = fetches.slice(-2);
	if (!before || !after) return 'there were too few answers';
	if (after.problem) return after.problem;
	const parts = [
		before.status !== after.status && `the status (${before.status}, ${after.status})`,
		before.etag !== after.etag && 'the ETag',
		before.lastModified !== after.lastModified && 'the date of the last change',
		before.cacheControl !== after.cacheControl && 'the cache rules',
		before.cache !== after.cache && `the cache (${before.cache ?? 'silent'}, ${after.cache ?? 'silent'})`,
		before.bytes !== after.bytes && `the size (${before.bytes}, ${after.bytes} bytes)`
	].filter(Boolean);
	return parts.length ? `${parts.join(', ')} still changed` : 'it had changed shortly before';
}

export function stabilityOf(fetches: readonly FetchSeen[]): StabilityResult {
	const stable = isStable(fetches);
	const tookMs = Math.round(fetches.at(-1)?.atMs ?? 0);
	const seconds = (tookMs / 1000).toFixed(tookMs < 10_000 ? 1 : 0);
	const last = fetches.at(-1);
	const served = last?.cache === 'hit' ? ', from a cache' : last?.cache === 'miss' ? ', past the cache' : '';
	const words = stable
		? `Stable after ${fetches.length} fetches in ${seconds}\u00a0s${served}.`
		: `Not stable after ${fetches.length} fetches in ${seconds}\u00a0s: ${whatDiffers(fetches)}. Measured all the same.`;
	return { stable, tookMs, words, fetches: [...fetches] };
}
