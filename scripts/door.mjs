// Who may speak to Zafra: decided on the headers, before anything else sees the request.

const LOCAL_NAMES = ['localhost', '127.0.0.1', '[::1]'];
const READING = new Set(['GET', 'HEAD', 'OPTIONS']);

/**
 * Host names under which Zafra answers: this machine's own at its port, and those of ZAFRA_ORIGINS
 * (`https://zafra.example.test,...`, for a proxy in front).
 * @returns {Set<string>} values of the Host header
 */
export function allowedHosts(host, port, origins = '') {
	const names = new Set(LOCAL_NAMES);
	if (!isWildcard(host)) names.add(host.includes(':') && !host.startsWith('[') ? `[${host}]` : host);
	const allowed = new Set([...names].flatMap((name) => [`${name}:${port}`, ...(port === 80 ? [name] : [])]));
	for (const origin of origins
		.split(',')
		.map((one) => one.trim())
		.filter(Boolean))
		allowed.add(hostOf(origin));
	return allowed;
}

function hostOf(origin) {
	try {
		return new URL(origin).host;
	} catch {
		throw new Error(`ZAFRA_ORIGINS holds “${origin}”, which is no origin such as https://zafra.example.test.`);
	}
}

/** Pages of any site ask for the visits' script and send beacons: that door has checks of its own. */
export const isVisit = (url = '') => /^\/visit(\/zafra\.js)?($|\?)/.test(url);

/** @returns {{ status: number, words: string } | null} why a request is turned away */
export function refusal({ method = 'GET', headers, url = '' }, allowed) {
	if (isVisit(url)) return null;
	const host = (headers.host ?? '').toLowerCase();
	if (!allowed.has(host))
		return {
			status: 421,
			words: `Zafra does not answer under the name “${host.slice(0, 100)}”. Name it in ZAFRA_ORIGINS if that is meant.`
		};
	if (READING.has(method) || isOwn(headers, host)) return null;
	return { status: 403, words: 'This request comes from another site, which may not change anything here.' };
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
