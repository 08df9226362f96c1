/** What waiting for a stable page saw, in a sentence. */
import type { FetchSeen, StabilityResult } from '../load/requests/stability';

export function describeStability({ stable, tookMs, fetches }: StabilityResult): string {
	const last = fetches.at(-1);
	if (fetches.length <= 1 && last?.problem) return `Could not be fetched: ${last.problem}`;
	const seconds = (tookMs / 1000).toFixed(tookMs < 10_000 ? 1 : 0);
	const served = last?.cache === 'hit' ? ', from a cache' : last?.cache === 'miss' ? ', past the cache' : '';
	const fetched = `after ${fetches.length} fetches in ${seconds}\u00a0s`;
	return stable
		? `Stable ${fetched}${served}.`
		: `Not stable ${fetched}: ${whatDiffers(fetches)}. Measured all the same.`;
}

/** Between the last two fetches. */
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
