/** Owners of requests carry colour: own host, own CDN, each third party. */
import type { OwnerShare } from '$core/load/requests/owners';

export type OwnerColours = (id: string, kind: string) => string;

/** @param shares all owners of the load, in the order in which they are listed */
export function ownerColours(shares: readonly Pick<OwnerShare, 'id' | 'kind'>[]): OwnerColours {
	const thirds = shares.filter((share) => share.kind === 'third-party').map((share) => share.id);
	return (id, kind) => {
		if (id === 'browser') return 'var(--rule-strong)';
		if (kind === 'own') return 'var(--ink)';
		if (kind === 'own-cdn') return 'var(--muted)';
		return `var(--arm-${(Math.max(0, thirds.indexOf(id)) % 7) + 1})`;
	};
}
