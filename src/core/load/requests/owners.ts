/** Whose a request is: the site's own hosts, its CDN, or a third party, by registrable domain (public suffix list). */
import { getDomain } from 'tldts';
import type { RequestRecord } from '../record/record';

export type OwnerKind = 'own' | 'own-cdn' | 'third-party';

export interface Owner {
	/** Registrable domain; the host itself where it has none. With `own-cdn` prefixed by `cdn:`. */
	id: string;
	/** As printed. */
	name: string;
	kind: OwnerKind;
}

export interface OwnerShare extends Owner {
	requests: number;
	/** Sums of what is known. */
	wireBytes: number;
	decodedBytes: number;
	/** Script that never ran and style that matched nothing, where it was counted. */
	unusedBytes: number;
	/** First start and last end of its requests, ms; null where none ended. */
	firstMs: number;
	lastMs: number | null;
}

function domainOf(host: string): string {
	const name = host.replace(/:\d+$/, '');
	return getDomain(name, { allowPrivateDomains: true }) ?? name;
}

/**
 * @param host of the request, with or without a port
 * @param siteHost host of the page
 * @param cdnHosts hosts that the site names as its CDN although their domain is another's
 */
export function ownerOf(host: string, siteHost: string, cdnHosts: readonly string[] = []): Owner {
	const own = domainOf(siteHost);
	const domain = domainOf(host);
	const isCdn = cdnHosts.includes(host) || (domain === own && /^(cdn|static|assets|img|images|media)\d*\./.test(host));
	if (isCdn) return { id: `cdn:${own}`, name: `${own}, CDN`, kind: 'own-cdn' };
	return domain === own ? { id: own, name: own, kind: 'own' } : { id: domain, name: domain, kind: 'third-party' };
}

/** Shares of all owners, the site's own first, then by bytes on the wire. */
export function sharesOf(
	requests: readonly Pick<RequestRecord, 'host' | 'wireBytes' | 'decodedBytes' | 'unused' | 'startMs' | 'endMs'>[],
	siteHost: string,
	cdnHosts: readonly string[] = []
): OwnerShare[] {
	const shares = new Map<string, OwnerShare>();
	const owners = new Map<string, Owner>();
	for (const request of requests) {
		const owner = owners.get(request.host) ?? ownerOf(request.host, siteHost, cdnHosts);
		owners.set(request.host, owner);
		const share = shares.get(owner.id) ?? {
			...owner,
			requests: 0,
			wireBytes: 0,
			decodedBytes: 0,
			unusedBytes: 0,
			firstMs: request.startMs,
			lastMs: null
		};
		share.requests++;
		share.wireBytes += request.wireBytes ?? 0;
		share.decodedBytes += request.decodedBytes ?? 0;
		share.unusedBytes += request.unused ?? 0;
		share.firstMs = Math.min(share.firstMs, request.startMs);
		if (request.endMs !== null) share.lastMs = Math.max(share.lastMs ?? 0, request.endMs);
		shares.set(owner.id, share);
	}
	const rank: Record<OwnerKind, number> = { own: 0, 'own-cdn': 1, 'third-party': 2 };
	return [...shares.values()].sort((a, b) => rank[a.kind] - rank[b.kind] || b.wireBytes - a.wireBytes);
}
