/** Asking sites of clients for a file: bounded in time, bytes and hops, never a private address, hosts by the map. */
import { createHash, X509Certificate } from 'node:crypto';
import { lookup } from 'node:dns/promises';
import { request as httpRequest, type IncomingMessage, type RequestOptions } from 'node:http';
import { request as httpsRequest } from 'node:https';
import type { TLSSocket } from 'node:tls';
import { createBrotliDecompress, createGunzip, createInflate } from 'node:zlib';
import { isWebUrl } from '$core/load/requests/address';
import { ruleFor, type HostRule } from '$core/load/requests/hostMap';
import { isPublicAddress } from '$core/load/requests/publicAddress';
import type { FetchFault } from '$core/pages/gathering';

/** How this Zafra reaches hosts. */
export interface Outward {
	hostMap: readonly HostRule[];
	/** Public key hashes that are trusted beside the usual ones. */
	trustedKeys: readonly string[];
}

export interface FetchLimits {
	/** For all hops and the whole body, ms. */
	withinMs: number;
	/** Of the body after decoding. */
	mostBytes: number;
	/** 0: an answer that leads elsewhere is an answer. */
	mostRedirects?: number;
	accept?: string;
	/** What is posted; nothing for asking. */
	post?: { body: string; headers: Record<string, string> };
}

export class OutwardFault extends Error {
	constructor(
		readonly fault: FetchFault,
		readonly host: string
	) {
		super(`${fault} (${host})`);
	}
}

export interface Fetched {
	/** After redirects. */
	url: string;
	status: number;
	/** Media type without parameters; empty when it is not said. */
	type: string;
	body: Buffer;
	/** The body was longer than the limit: this is its beginning. */
	isCut: boolean;
}

const MOST_REDIRECTS = 5;
/** Says who asks, so that a site can tell and refuse it. */
export const AGENT = 'Zafra (page list of an agency; obeys robots.txt)';

/** @throws OutwardFault when nothing comes of it; an answer with any status is an answer */
export async function fetchOutward(address: string, outward: Outward, limits: FetchLimits): Promise<Fetched> {
	const { withinMs, mostRedirects = MOST_REDIRECTS } = limits;
	const signal = AbortSignal.timeout(withinMs);
	let url = parse(address);
	for (let hops = 0; hops <= mostRedirects; hops++) {
		const answer = await ask(url, outward, limits, signal);
		const { statusCode = 0, headers } = answer;
		if (statusCode < 300 || statusCode >= 400 || !headers.location || mostRedirects === 0) {
			const { body, isCut } = await bodyOf(answer, limits.mostBytes, url, signal);
			const type = (headers['content-type'] ?? '').split(';')[0]!.trim().toLowerCase();
			return { url: url.href, status: statusCode, type, body, isCut };
		}
		answer.destroy();
		url = parse(headers.location, url);
	}
	throw new OutwardFault('redirect-loop', url.host);
}

function parse(address: string, base?: URL): URL {
	if (!URL.canParse(address, base)) throw new OutwardFault('bad-address', address.slice(0, 100));
	const url = new URL(address, base);
	if (!isWebUrl(url)) throw new OutwardFault('bad-address', url.host);
	return url;
}

/** Where a host really is. @throws OutwardFault for a private address that the operator does not map */
async function addressOf(url: URL, { hostMap }: Outward): Promise<{ host: string; port: number }> {
	const isTls = url.protocol === 'https:';
	const rule = ruleFor(url.hostname, hostMap);
	const port = url.port ? Number(url.port) : isTls ? 443 : 80;
	if (rule) {
		const mapped = port === 80 ? rule.port : port === 443 ? rule.tlsPort : null;
		if (mapped === null) throw new OutwardFault('refused', url.host);
		return { host: rule.address, port: mapped };
	}
	const name = url.hostname.replace(/^\[|\]$/g, '');
	const found = await lookup(name).catch(() => null);
	if (!found) throw new OutwardFault('unresolvable', url.host);
	if (!isPublicAddress(found.address)) throw new OutwardFault('private-address', url.host);
	return { host: found.address, port };
}

async function ask(
	url: URL,
	outward: Outward,
	{ accept = '*/*', post }: FetchLimits,
	signal: AbortSignal
): Promise<IncomingMessage> {
	const address = await addressOf(url, outward);
	const isTls = url.protocol === 'https:';
	const options: RequestOptions & { servername?: string; rejectUnauthorized?: boolean } = {
		...address,
		method: post ? 'POST' : 'GET',
		// A body that is cut off takes its connection along: none is used twice.
		agent: false,
		path: `${url.pathname}${url.search}`,
		signal,
		headers: { host: url.host, accept, 'accept-encoding': 'gzip, deflate, br', 'user-agent': AGENT, ...post?.headers },
		// The certificate is checked below: a key that the operator trusts may stand in for an authority.
		...(isTls ? { servername: url.hostname, rejectUnauthorized: false } : {})
	};
	return new Promise((resolve, reject) => {
		const request = (isTls ? httpsRequest : httpRequest)(options, (answer) => {
			if (!isTls || isTrusted(answer.socket as TLSSocket, outward)) return resolve(answer);
			answer.destroy();
			reject(new OutwardFault('certificate', url.host));
		});
		request.on('error', (error) => reject(faultOf(error, url, signal)));
		request.end(post?.body);
	});
}

function isTrusted(socket: TLSSocket, { trustedKeys }: Outward): boolean {
	if (socket.authorized) return true;
	const raw = socket.getPeerCertificate().raw as Buffer | undefined;
	if (!raw || trustedKeys.length === 0) return false;
	const key = new X509Certificate(raw).publicKey.export({ type: 'spki', format: 'der' });
	return trustedKeys.includes(createHash('sha256').update(key).digest('base64'));
}

function faultOf(error: unknown, url: URL, signal: AbortSignal): OutwardFault {
	if (error instanceof OutwardFault) return error;
	if (signal.aborted) return new OutwardFault('no-answer', url.host);
	const { code = '' } = error as { code?: string };
	return new OutwardFault(code === 'ECONNREFUSED' ? 'refused' : 'network', url.host);
}

const DECODERS: Record<string, () => NodeJS.ReadWriteStream> = {
	gzip: createGunzip,
	'x-gzip': createGunzip,
	deflate: createInflate,
	br: createBrotliDecompress
};

/** Decoded as it comes, so that a small body that unfolds into a huge one is cut off at the limit. */
async function bodyOf(answer: IncomingMessage, mostBytes: number, url: URL, signal: AbortSignal) {
	const decoder = DECODERS[answer.headers['content-encoding'] ?? '']?.();
	const bytes = decoder ? answer.pipe(decoder) : answer;
	if (decoder) answer.on('error', (error) => decoder.emit('error', error));
	try {
		return await readUpTo(bytes as AsyncIterable<Buffer>, mostBytes);
	} catch (error) {
		throw faultOf(error, url, signal);
	} finally {
		answer.destroy();
	}
}

/** @returns at most so many bytes, and whether there were more */
export async function readUpTo(
	bytes: AsyncIterable<Uint8Array>,
	mostBytes: number
): Promise<{ body: Buffer; isCut: boolean }> {
	const chunks: Uint8Array[] = [];
	let size = 0;
	for await (const chunk of bytes) {
		size += chunk.length;
		if (size > mostBytes) return { body: Buffer.concat([...chunks, chunk]).subarray(0, mostBytes), isCut: true };
		chunks.push(chunk);
	}
	return { body: Buffer.concat(chunks), isCut: false };
}
