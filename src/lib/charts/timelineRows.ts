/** What a load's timeline lists, and how its choice is kept in the address. */
import type { OwnerShare } from '$core/load/requests/owners';
import { EVERYTHING, ORDERS, SPECIAL, type OwnedRequest, type RequestWish } from '$core/load/requests/requestList';

/** A request, or the heading of an owner's requests. */
export type TimelineRow = { owner: OwnerShare; count: number } | { request: OwnedRequest };

/** Requests under the headings of their owners; those of folded owners are left out. @param folded ids of owners */
export function rowsByOwner(
	requests: readonly OwnedRequest[],
	shares: readonly OwnerShare[],
	folded: readonly string[]
): TimelineRow[] {
	return shares.flatMap((owner): TimelineRow[] => {
		const own = requests.filter((request) => request.owner.id === owner.id);
		if (!own.length) return [];
		const open = folded.includes(owner.id) ? [] : own.map((request) => ({ request }));
		return [{ owner, count: own.length }, ...open];
	});
}

/** What the address asks to be listed; what it does not name is usual. */
export function wishFrom(values: Record<string, string>): RequestWish {
	const { q = EVERYTHING.search, owner = EVERYTHING.owner, type = EVERYTHING.type, show = '', order = '' } = values;
	return {
		search: q,
		owner,
		type,
		special: Object.hasOwn(SPECIAL, show) ? (show as RequestWish['special']) : EVERYTHING.special,
		order: Object.hasOwn(ORDERS, order) ? (order as RequestWish['order']) : EVERYTHING.order
	};
}

/** The same for the address; what is usual is empty. @param opened number of the request whose details are open */
export function chosenOf(wish: RequestWish, byOwner: boolean, opened: number | null): Record<string, string> {
	const { search, owner, type, special, order } = wish;
	return {
		q: search,
		owner,
		type,
		show: special,
		order: order === EVERYTHING.order ? '' : order,
		by: byOwner ? 'owner' : '',
		open: opened === null ? '' : String(opened)
	};
}
