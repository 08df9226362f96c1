/** Which addresses the lab and Zafra itself may reach without the operator's word: public ones alone. */
import ipaddr from 'ipaddr.js';

/** IPv4 in IPv6 by a way that is given up (RFC 4291, section 2.5.5.1): `::127.0.0.1` may still lead to this machine. */
const IPV4_COMPATIBLE = ipaddr.IPv6.parseCIDR('::/96');

/** @param address IPv4 or IPv6, in any spelling @throws Error for what is no address */
export function isPublicAddress(address: string): boolean {
	// IPv4 mapped into IPv6 is read as IPv4.
	const read = ipaddr.process(address);
	if (read instanceof ipaddr.IPv6 && read.match(IPV4_COMPATIBLE)) return false;
	return read.range() === 'unicast';
}
