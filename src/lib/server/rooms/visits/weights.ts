/**
 * How much one address may weigh: a program at one address must not decide what a page's visitors had. Kept in memory
 * for a day, as sums with a salt of that day; nothing of it is stored.
 */
import { createHash, randomBytes } from 'node:crypto';
import ipaddr from 'ipaddr.js';
import { DAY_MS } from './queries/store';

/** Page views of one address that count for a page in a day, however few others there are (house). */
export const LEAST_VIEWS = 40;
/** Beyond them its views are at most this share of the page's day (house). */
export const MOST_SHARE = 0.05;
/** More addresses than these are not told apart: none of them is refused for its weight. */
const MOST_KNOWN = 500_000;
const IPV6_HOST_BITS = 64;

interface PageDay {
	views: number;
	byAddress: Map<string, number>;
}

export class AddressWeights {
	#day = NaN;
	#salt = randomBytes(16);
	#known = 0;
	#pages = new Map<string, PageDay>();

	/** Counts it, unless the address has had its share. @param page any name of it */
	takes(page: string, address: string, at: number): boolean {
		this.#begin(Math.floor(at / DAY_MS));
		const day = this.#pageDay(page);
		const name = this.#nameOf(address);
		const own = (day.byAddress.get(name) ?? 0) + 1;
		if (own > LEAST_VIEWS && own > MOST_SHARE * (day.views + 1)) return false;
		day.views++;
		if (own > 1 || this.#known < MOST_KNOWN) {
			if (own === 1) this.#known++;
			day.byAddress.set(name, own);
		}
		return true;
	}

	#begin(day: number): void {
		if (day === this.#day) return;
		this.#day = day;
		this.#salt = randomBytes(16);
		this.#known = 0;
		this.#pages.clear();
	}

	#pageDay(page: string): PageDay {
		let day = this.#pages.get(page);
		if (!day) this.#pages.set(page, (day = { views: 0, byAddress: new Map() }));
		return day;
	}

	#nameOf(address: string): string {
		return createHash('sha256').update(this.#salt).update(networkOf(address)).digest('base64url').slice(0, 16);
	}
}

/** One household or office has one IPv4 address, or 64 bits of IPv6 (RFC 6177): whoever has those has all of them. */
export function networkOf(address: string): string {
	if (!ipaddr.isValid(address)) return address;
	const read = ipaddr.process(address);
	if (!(read instanceof ipaddr.IPv6)) return read.toString();
	return Buffer.from(read.toByteArray())
		.subarray(0, IPV6_HOST_BITS / 8)
		.toString('hex');
}
