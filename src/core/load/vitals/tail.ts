/** How long others keep a page busy after the site itself is complete. */
import type { OwnerShare } from '../requests/owners';

/** When the last response ended: of the site itself, and of everything. The rest is the tail of others. ms */
export function thirdPartyTail(shares: readonly OwnerShare[]): { ownMs: number; allMs: number; tailMs: number } {
	const last = (own: boolean) =>
		Math.max(0, ...shares.filter((share) => !own || share.kind !== 'third-party').map((share) => share.lastMs ?? 0));
	const ownMs = last(true);
	const allMs = last(false);
	return { ownMs, allMs, tailMs: allMs - ownMs };
}
