/** The rewriting server's way to the hosts: where they really are, in the protocol that they speak. */
import { X509Certificate } from 'node:crypto';
import { lookup } from 'node:dns/promises';
import {
	Agent as PlainAgent,
	request as plainRequest,
	type ClientRequestArgs,
	type IncomingHttpHeaders
} from 'node:http';
import { connect as connectHttp2, constants, type ClientHttp2Session } from 'node:http2';
import { Agent as SecureAgent, request as secureRequest } from 'node:https';
import { connect as connectPlain, type Socket } from 'node:net';
import type { Duplex, Readable } from 'node:stream';
import { connect as connectTls, type TLSSocket } from 'node:tls';
import ipaddr from 'ipaddr.js';
import { isPublicAddress } from '$core/load/requests/publicAddress';
import { ruleFor, type HostRule } from '$core/load/requests/hostMap';
import { keyHashOf } from './certificate';

export interface Reach {
	hostMap: HostRule[];
	/** SHA-256 hashes (base64) of public keys that are trusted beside the usual ones. */
	trustedKeys: readonly string[];
}

export interface Asked {
	method: string;
	url: URL;
	headers: IncomingHttpHeaders;
	body: Readable | null;
}

export interface Answered {
	status: number;
	headers: IncomingHttpHeaders;
	body: Readable;
}

/** The host may not be reached, does not answer, or shows a certificate that nobody trusts. */
export class OutOfReach extends Error {}

const WITHIN_MS = 20_000;
/** Of one connection alone, or made anew by each side (RFC 9110, section 7.6.1; RFC 9113, section 8.2.2). */
export const OF_ONE_HOP = new Set([
	...['connection', 'keep-alive', 'proxy-connection', 'proxy-authenticate', 'proxy-authorization', 'te', 'trailer'],
	...['transfer-encoding', 'upgrade', 'http2-settings', 'host']
]);

type Open = (host: string, port: number) => Promise<Socket>;
/** An error comes alone: the type asks for a stream with it. */
type Opened = (error: Error | null, stream: Duplex) => void;
const KEPT = { keepAlive: true, maxSockets: 64 };

/** Agents whose connections go where the host really is. */
class ReachingPlain extends PlainAgent {
	constructor(private readonly open: Open) {
		super(KEPT);
	}
	override createConnection(options: ClientRequestArgs, opened?: Opened): undefined {
		openFor(this.open, options, opened!);
	}
}
class ReachingSecure extends SecureAgent {
	constructor(private readonly open: Open) {
		super(KEPT);
	}
	override createConnection(options: ClientRequestArgs, opened?: Opened): undefined {
		openFor(this.open, options, opened!);
	}
}

function openFor(open: Open, { host, port }: ClientRequestArgs, opened: Opened): void {
	const fail = (error: Error) => (opened as (error: Error) => void)(error);
	open(host ?? '', Number(port)).then((socket) => opened(null, socket), fail);
}

export class Upstream {
	#plain = new ReachingPlain((host, port) => this.#tcp(host, port));
	#secure = new ReachingSecure((host, port) => this.#tls(host, port, ['http/1.1']));
	#sessions = new Map<string, Promise<ClientHttp2Session>>();
	#protocols = new Map<string, Promise<'h2' | 'http/1.1'>>();

	constructor(private readonly reach: Reach) {}

	/** What the host speaks over TLS; asked once. @throws OutOfReach */
	protocolOf(host: string, port = 443): Promise<'h2' | 'http/1.1'> {
		const key = `${host}:${port}`;
		const known = this.#protocols.get(key);
		if (known) return known;
		const asked = this.#tls(host, port, ['h2', 'http/1.1']).then((socket) => {
			const spoken = socket.alpnProtocol === 'h2' ? 'h2' : 'http/1.1';
			socket.destroy();
			return spoken;
		});
		this.#protocols.set(key, asked);
		// What failed is asked again at the next connection.
		asked.catch(() => this.#protocols.delete(key));
		return asked;
	}

	/** @throws OutOfReach */
	async ask(asked: Asked): Promise<Answered> {
		const { url } = asked;
		if (url.protocol === 'http:') return this.#askHttp1(asked);
		const spoken = await this.protocolOf(url.hostname, Number(url.port) || 443);
		return spoken === 'h2' ? this.#askHttp2(asked) : this.#askHttp1(asked);
	}

	/** For what is no request of HTTP, as a web socket is. @throws OutOfReach */
	tunnel(url: URL): Promise<Socket | TLSSocket> {
		const isSecure = url.protocol === 'https:';
		const port = Number(url.port) || (isSecure ? 443 : 80);
		return isSecure ? this.#tls(url.hostname, port, ['http/1.1']) : this.#tcp(url.hostname, port);
	}

	close(): void {
		this.#plain.destroy();
		this.#secure.destroy();
		for (const pending of this.#sessions.values()) pending.then((session) => session.destroy()).catch(() => undefined);
	}

	async #askHttp1({ method, url, headers, body }: Asked): Promise<Answered> {
		const isSecure = url.protocol === 'https:';
		const port = Number(url.port) || (isSecure ? 443 : 80);
		const agent = isSecure ? this.#secure : this.#plain;
		const ask = isSecure ? secureRequest : plainRequest;
		return new Promise((resolve, reject) => {
			const asking = ask({
				agent,
				method,
				host: url.hostname,
				port,
				path: url.pathname + url.search,
				headers: { ...forwarded(headers), host: url.host }
			});
			asking.once('response', (answer) =>
				resolve({ status: answer.statusCode ?? 502, headers: answer.headers, body: answer })
			);
			asking.once('error', (error) => reject(new OutOfReach(error.message)));
			if (body) body.pipe(asking);
			else asking.end();
		});
	}

	async #askHttp2({ method, url, headers, body }: Asked): Promise<Answered> {
		const session = await this.#session(url);
		return new Promise((resolve, reject) => {
			const stream = session.request(
				{
					...forwarded(headers),
					[constants.HTTP2_HEADER_METHOD]: method,
					[constants.HTTP2_HEADER_SCHEME]: 'https',
					[constants.HTTP2_HEADER_AUTHORITY]: url.host,
					[constants.HTTP2_HEADER_PATH]: url.pathname + url.search
				},
				{ endStream: body === null }
			);
			stream.once('response', ({ [constants.HTTP2_HEADER_STATUS]: status, ...rest }) =>
				resolve({ status: Number(status), headers: rest as IncomingHttpHeaders, body: stream })
			);
			stream.once('error', (error) => reject(new OutOfReach(error.message)));
			stream.once('close', () => reject(new OutOfReach('The host closed the stream.')));
			if (body) body.pipe(stream);
		});
	}

	#session({ hostname, port }: URL): Promise<ClientHttp2Session> {
		const key = `${hostname}:${port || 443}`;
		const known = this.#sessions.get(key);
		if (known) return known;
		const opened = this.#tls(hostname, Number(port) || 443, ['h2']).then((socket) => {
			const session = connectHttp2(`https://${key}`, { createConnection: () => socket as Duplex });
			const forget = () => this.#sessions.delete(key);
			session.on('close', forget);
			session.on('goaway', forget);
			session.on('error', forget);
			session.unref();
			return session;
		});
		this.#sessions.set(key, opened);
		opened.catch(() => this.#sessions.delete(key));
		return opened;
	}

	async #tls(host: string, port: number, protocols: string[]): Promise<TLSSocket> {
		const place = await this.#placeOf(host, port);
		return new Promise((resolve, reject) => {
			const socket = connectTls({
				...place,
				...(ipaddr.isValid(host) ? {} : { servername: host }),
				ALPNProtocols: protocols,
				// Looked at below: what the lab's browser would trust, and nothing else.
				rejectUnauthorized: false
			});
			const fail = (why: string) => {
				socket.destroy();
				reject(new OutOfReach(why));
			};
			socket.setTimeout(WITHIN_MS, () => fail('The host does not answer.'));
			socket.once('error', (error) => fail(error.message));
			socket.once('secureConnect', () => {
				if (!this.#isTrusted(socket)) return fail('Nobody trusts the certificate of the host.');
				socket.setTimeout(0);
				resolve(socket);
			});
		});
	}

	#isTrusted(socket: TLSSocket): boolean {
		if (socket.authorized) return true;
		const { raw } = socket.getPeerCertificate();
		return raw !== undefined && this.reach.trustedKeys.includes(keyHashOf(new X509Certificate(raw)));
	}

	async #tcp(host: string, port: number): Promise<Socket> {
		const place = await this.#placeOf(host, port);
		return new Promise((resolve, reject) => {
			const socket = connectPlain({ ...place, noDelay: true });
			socket.setTimeout(WITHIN_MS, () => socket.destroy(new Error('The host does not answer.')));
			socket.once('error', (error) => reject(new OutOfReach(error.message)));
			socket.once('connect', () => {
				socket.setTimeout(0);
				resolve(socket);
			});
		});
	}

	/** As the shaped line reaches it: no private address that is not mapped. */
	async #placeOf(host: string, port: number): Promise<{ host: string; port: number }> {
		const rule = ruleFor(host, this.reach.hostMap);
		if (!rule) {
			const address = await addressOf(host);
			if (!isPublicAddress(address)) throw new OutOfReach(`${host} is a private address.`);
			return { host: address, port };
		}
		if (rule.publicOnly && !isPublicAddress(await addressOf(rule.address)))
			throw new OutOfReach(`${host} leads to a private address.`);
		if (port === 80) return { host: rule.address, port: rule.port };
		if (port === 443 && rule.tlsPort !== null) return { host: rule.address, port: rule.tlsPort };
		throw new OutOfReach(`The host map has no place for port ${port} of ${host}.`);
	}
}

async function addressOf(host: string): Promise<string> {
	const bare = host.replace(/^\[|\]$/g, '');
	if (ipaddr.isValid(bare)) return bare;
	const found = await lookup(bare).catch(() => null);
	if (!found) throw new OutOfReach(`${host} cannot be found.`);
	return found.address;
}

const forwarded = (headers: IncomingHttpHeaders): IncomingHttpHeaders =>
	Object.fromEntries(Object.entries(headers).filter(([name]) => !name.startsWith(':') && !OF_ONE_HOP.has(name)));
