// Who may speak to Zafra: decided on the headers, before anything else sees the request.

import ipaddr from 'ipaddr.js';

const LOCAL_NAMES = ['localhost', '127.0.0.1', '[::1]'];
const READING = new Set(['GET', 'HEAD', 'OPTIONS']);

/**
 * Host names under which Zafra answers: this machine's own at its port, and those of ZAFRA_ORIGINS
 * (`https://zafra.example.test,...`, for a proxy in front).
 * @returns {Map<string, string>} values of the Host header, each with the protocol under which people reach it
 */
export function allowedHosts(host, port, origins = '') {
	const names = new Set(LOCAL_NAMES);
	if (!isWildcard(host)) names.add(host.includes(':') && !host.startsWith('[') ? `[${host}]` : host);
	const allowed = new Map();
	for (const name of names) {
		allowed.set(`${name}:${port}`, 'http');
		if (port === 80) allowed.set(name, 'http');
	}
	for (const origin of listOf(origins)) {
		const { host, protocol } = originOf(origin);
		allowed.set(host, protocol.slice(0, -1));
	}
	return allowed;
}

/** The name to answer under where a request's own is none of ours: the first configured origin, or this machine's. */
export const ownHost = (port, origins = '') => {
	const [first] = listOf(origins);
	return first ? originOf(first).host : `127.0.0.1:${port}`;
};

const listOf = (text) =>
	text
		.split(',')
		.map((part) => part.trim())
		.filter(Boolean);

function originOf(origin) {
	if (URL.canParse(origin) && /^https?:\/\//.test(origin)) return new URL(origin);
	throw new Error(`ZAFRA_ORIGINS holds “${origin}”, which is no origin such as https://zafra.example.test.`);
}

/** A host and perhaps a port, and nothing that could become part of an address (RFC 9110, 7.2; RFC 3986, 3.2.2). */
const HOST = /^(?:\[[0-9a-f:.]+\]|[a-z0-9](?:[a-z0-9._-]*[a-z0-9_])?\.?)(?::\d{1,5})?$/i;

/**
 * The path that the framework will route: it reads the address as we do here.
 * @returns null for a target that is no path of its own (`GET http://…`, `OPTIONS *`)
 */
function routedPath(url) {
	if (!url.startsWith('/')) return null;
	try {
		return new URL(`http://zafra.invalid${url}`).pathname;
	} catch {
		return null;
	}
}

/** Pages of any site ask for the visits' script and send beacons: that door has checks of its own. */
const VISITS = new Set(['/visit', '/visit/zafra.js']);
export const isVisit = (url = '') => VISITS.has(routedPath(url));

const countOf = (rawHeaders, name) =>
	rawHeaders.filter((text, place) => place % 2 === 0 && text.toLowerCase() === name).length;

/** @returns {{ status: number, words: string } | null} why a request is turned away */
export function refusal({ method = 'GET', headers, url = '/', rawHeaders = [] }, allowed) {
	const host = (headers.host ?? '').toLowerCase();
	if (!HOST.test(host) || countOf(rawHeaders, 'host') > 1)
		return { status: 400, words: 'The Host header is no name with a port, so this request cannot be answered.' };
	if (routedPath(url) === null) return { status: 400, words: 'What is asked for is no path of this server.' };
	if (isVisit(url)) return null;
	if (!allowed.has(host))
		return {
			status: 421,
			words: `Zafra does not answer under the name “${host.slice(0, 100)}”. Name it in ZAFRA_ORIGINS if that is meant.`
		};
	if (READING.has(method) || isOwn(headers, host)) return null;
	return { status: 403, words: 'This request comes from another site, which may not change anything here.' };
}

/**
 * Proxies in front whose word is taken for who asks (`ZAFRA_PROXIES`).
 * @param {string} list addresses and ranges, comma between: `127.0.0.1, 10.0.0.0/8`
 * @throws Error in words for what is no address
 */
export function parseProxies(list = '') {
	return listOf(list).map((text) => {
		try {
			const [address, bits] = text.includes('/') ? ipaddr.parseCIDR(text) : [ipaddr.parse(text), null];
			return [address, bits ?? (address.kind() === 'ipv4' ? 32 : 128)];
		} catch {
			throw new Error(`ZAFRA_PROXIES holds “${text}”, which is no address such as 127.0.0.1 or 10.0.0.0/8.`);
		}
	});
}

/** How an address is written here: IPv4 in IPv6 as IPv4. @returns null for what is no address */
function plainAddress(text = '') {
	const bare = text
		.trim()
		.replace(/^\[(.*)\](:\d+)?$/, '$1')
		.replace(/^(\d+\.\d+\.\d+\.\d+):\d+$/, '$1');
	return ipaddr.isValid(bare) ? ipaddr.process(bare) : null;
}

const isAmong = (address, ranges) =>
	ranges.some(([base, bits]) => base.kind() === address.kind() && address.match(base, bits));

/**
 * Who asks. The word of a trusted proxy is taken, and of the ones that it names as long as they are trusted too
 * (X-Forwarded-For, read from its end); nobody else's.
 * @returns {string}
 */
export function senderOf({ socket, headers }, proxies) {
	const direct = plainAddress(socket.remoteAddress);
	if (!direct) return 'unknown';
	let sender = direct;
	const named = isAmong(direct, proxies) ? String(headers['x-forwarded-for'] ?? '').split(',') : [];
	for (const text of named.reverse()) {
		const address = plainAddress(text);
		if (!address) break;
		sender = address;
		if (!isAmong(address, proxies)) break;
	}
	return sender.toString();
}

/** Under this name the app hears who asks; what a request itself says there is written over. */
export const SENDER_HEADER = 'x-zafra-sender';

/**
 * What the app builds its own address from are the configured origins: never what was sent.
 * @param {{ allowed: Map<string, string>, proxies: unknown[], own: string }} place
 */
export function straighten(request, { allowed, proxies, own }) {
	const { headers } = request;
	headers[SENDER_HEADER] = senderOf(request, proxies);
	const host = String(headers.host).toLowerCase();
	headers.host = allowed.has(host) ? host : own;
	headers['x-forwarded-proto'] = allowed.get(headers.host);
}

/** Browsers say where a request comes from (Fetch Metadata, RFC 6454); other programs say neither. */
function isOwn(headers, host) {
	const site = headers['sec-fetch-site'];
	if (site && site !== 'same-origin' && site !== 'none') return false;
	const { origin } = headers;
	if (!origin) return true;
	try {
		return new URL(origin).host === host;
	} catch {
		return false;
	}
}

/** Whether listening there lets others in. */
export function isOpenToOthers(host) {
	return isWildcard(host) || !(host === 'localhost' || host === '::1' || host === '[::1]' || /^127\./.test(host));
}

function isWildcard(host) {
	return host === '0.0.0.0' || host === '::' || host === '[::]';
}

export const OPEN_WORDS =
	'Anybody who can reach this address can read all clients, trials and reports, start loads of any public page from this machine, and delete what was measured: there are no people and roles yet.';
