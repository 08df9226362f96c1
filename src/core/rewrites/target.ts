/** Which requests a rewrite is about. */
import { getDomain } from 'tldts';
import { isMatching } from '../load/requests/pattern';

export interface Target {
	owner?: string | undefined;
	host?: string | undefined;
	address?: string | undefined;
}

/** @param url whole address of a request */
export function isMeant(url: string, { owner, host, address }: Target): boolean {
	if (!URL.canParse(url)) return false;
	if (address !== undefined) return isMatching(url, address);
	const own = new URL(url);
	if (host !== undefined) return own.host === host || own.hostname === host;
	return owner !== undefined && (getDomain(own.hostname, { allowPrivateDomains: true }) ?? own.hostname) === owner;
}
