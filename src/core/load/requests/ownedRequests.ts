/** Requests with their owners. Apart from the list: the public suffix list is larger than a page’s scripts. */
import { ownerOf, type Owner } from './owners';
import type { ListedRequest, OwnedRequest } from './requestList';

/**
 * In the order of the load, numbered from 1.
 * @param siteHost host of the page
 * @param cdnHosts hosts that the site names as its CDN although their domain is another's
 */
export function ownedRequests<Request extends ListedRequest>(
	requests: readonly Request[],
	siteHost: string,
	cdnHosts: readonly string[] = []
): (Request & OwnedRequest)[] {
	const owners = new Map<string, Owner>();
	return requests.map((request, i) => {
		let owner = owners.get(request.host);
		if (!owner) owners.set(request.host, (owner = ownerOf(request.host, siteHost, cdnHosts)));
		return { ...request, owner, number: i + 1 };
	});
}
