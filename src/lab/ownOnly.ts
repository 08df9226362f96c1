/** Headers and credentials of the conditions, sent to the page's own site and to nobody else. */
import { getDomain } from 'tldts';
import type { CDPSession } from 'playwright-core';
import type { Conditions, SecretHeader } from '$core/load/conditions/conditions';

/**
 * Requests to the site's own hosts, and to hosts named beside a header, are held for a moment and get the headers. The
 * browser does not carry such a header over a redirect (DevTools protocol, Fetch.continueRequest): each hop is judged
 * anew.
 */
export async function sendOwnOnly(
	session: CDPSession,
	{ headers, authentication }: Conditions,
	page: URL
): Promise<void> {
	if (!headers.length && !authentication) return;
	const challenged = new Set<string>();
	session.on('Fetch.requestPaused', ({ requestId, request }) => {
		const extra = headersFor(new URL(request.url).hostname, headers, page.hostname);
		const changed = extra.length ? { headers: merge(request.headers, extra) } : {};
		void session.send('Fetch.continueRequest', { requestId, ...changed }).catch(() => undefined);
	});
	session.on('Fetch.authRequired', ({ requestId, request }) => {
		const isOwn = authentication && new URL(request.url).host === page.host && !challenged.has(request.url);
		challenged.add(request.url);
		const authChallengeResponse = isOwn
			? { response: 'ProvideCredentials' as const, ...authentication }
			: { response: 'CancelAuth' as const };
		void session.send('Fetch.continueWithAuth', { requestId, authChallengeResponse }).catch(() => undefined);
	});
	const site = siteOf(page.hostname);
	const hosts = headers.length ? [site, `*.${site}`, ...headers.flatMap((header) => header.hosts ?? [])] : [];
	const patterns = hosts.map((host) => ({ urlPattern: `*://${host}*` }));
	// For the credentials only the page's own documents are held; the browser then answers for the rest of the host
	// itself.
	const documents = authentication ? [{ urlPattern: `${page.origin}/*`, resourceType: 'Document' as const }] : [];
	await session.send('Fetch.enable', {
		handleAuthRequests: Boolean(authentication),
		patterns: [...patterns, ...documents]
	});
}

function headersFor(host: string, headers: readonly SecretHeader[], pageHost: string): SecretHeader[] {
	const isOwn = siteOf(host) === siteOf(pageHost);
	return headers.filter((header) => isOwn || header.hosts?.includes(host));
}

/** Names of headers know no case (RFC 9110, section 5.1). */
function merge(sent: Record<string, string>, extra: readonly SecretHeader[]): { name: string; value: string }[] {
	const names = new Set(extra.map(({ name }) => name.toLowerCase()));
	const kept = Object.entries(sent).filter(([name]) => !names.has(name.toLowerCase()));
	return [...kept.map(([name, value]) => ({ name, value })), ...extra.map(({ name, value }) => ({ name, value }))];
}

/** The registrable domain; an address or a bare name is its own site. */
function siteOf(host: string): string {
	return getDomain(host, { allowPrivateDomains: true }) ?? host;
}
