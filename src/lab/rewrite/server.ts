/**
 * The rewriting server: between host and shaped line, so that what is smaller really travels faster. It passes on what
 * a host answers, waits as long as the host did, keeps protocol and coding, and does what the rewrites say.
 */
import { setTimeout as pause } from 'node:timers/promises';
import { createServer as createHttp1, type IncomingMessage, type ServerResponse } from 'node:http';
import {
	createServer as createHttp2,
	constants,
	type Http2Server,
	type Http2ServerRequest,
	type Http2ServerResponse
} from 'node:http2';
import { createServer as createDoor, type AddressInfo, type Socket } from 'node:net';
import { buffer } from 'node:stream/consumers';
import { createServer as createTls, type TLSSocket } from 'node:tls';
import type { Rewrite } from '$core/rewrites/rewrite';
import { isMeant } from '$core/rewrites/target';
import { realAddress } from '$core/rewrites/text';
import { bodyRewrites, changed, changeHeaders, type Answer } from './change';
import type { OwnCertificate } from './certificate';
import type { Twin } from './twin';
import { serverNameIn } from './clientHello';
import { OF_ONE_HOP, Upstream, type Answered, type Reach } from './upstream';

export interface RewritingOptions extends Reach {
	rewrites: readonly Rewrite[];
	/** Answered from it where it has the address; live without one. */
	twin: Twin | null;
	certificate: OwnCertificate;
}

/** What it did for one load. */
export interface RewritingLog {
	/** How often each rewrite of the list was done. */
	applied: number[];
	requests: number;
	/** Answered by the twin; the others went to their hosts. */
	fromTwin: number;
	/** The server's own work, without waiting for hosts, ms. */
	workMs: number;
	/** What else had to be done, in words; each once. */
	notes: string[];
}

type Request = IncomingMessage | Http2ServerRequest;
type Response = ServerResponse | Http2ServerResponse;

/** Answers with neither body nor length (RFC 9110, sections 15.3.5 and 15.4.5). */
const BODILESS = new Set([204, 304]);
/** A part of a file, or that it has not changed, is no answer for the next load. */
const KEPT = new Set([200, 203, 204, 301, 302, 303, 307, 308, 404, 410]);
/** Larger answers are passed on as they come, whatever the rewrites say. */
const MOST_CHANGED_BYTES = 32_000_000;
const MOST_HELLO = 20_000;

export class RewritingServer {
	readonly log: RewritingLog;
	#upstream: Upstream;
	#plain = createHttp1((request, response) => void this.#answer(request, response));
	#second: Http2Server = createHttp2((request, response) => void this.#answer(request, response));
	#secure;
	/** Hosts are asked for the protocol that they speak before the handshake says which. */
	#door = createDoor((socket) => this.#greet(socket));
	#spoken = new Map<string, 'h2' | 'http/1.1'>();
	#sockets = new Set<Socket>();

	constructor(private readonly options: RewritingOptions) {
		const { certificate } = options;
		this.log = { applied: options.rewrites.map(() => 0), requests: 0, fromTwin: 0, workMs: 0, notes: [] };
		this.#upstream = new Upstream(options);
		this.#secure = createTls({
			key: certificate.key,
			cert: certificate.certificate,
			ALPNCallback: ({ servername, protocols }) => {
				const wanted = this.#spoken.get(servername) ?? 'http/1.1';
				return protocols.includes(wanted) ? wanted : protocols[0];
			}
		});
		this.#secure.on('secureConnection', (socket: TLSSocket) =>
			(socket.alpnProtocol === 'h2' ? this.#second : this.#plain).emit('connection', socket)
		);
		for (const server of [this.#plain, this.#door])
			server.on('connection', (socket: Socket) => {
				this.#sockets.add(socket);
				socket.setNoDelay(true);
				socket.on('close', () => this.#sockets.delete(socket));
				socket.on('error', () => socket.destroy());
			});
		this.#secure.on('tlsClientError', () => undefined);
		this.#second.on('sessionError', () => undefined);
		this.#plain.on('upgrade', (request, socket: Socket, head) => void this.#tunnel(request, socket, head));
		// A host may take its time, and a page may stream.
		this.#plain.requestTimeout = 0;
		this.#plain.keepAliveTimeout = 60_000;
	}

	/** @returns ports on 127.0.0.1 */
	async listen(): Promise<{ port: number; tlsPort: number }> {
		const ports = [this.#plain, this.#door].map(
			(server) =>
				new Promise<number>((resolve, reject) => {
					server.once('error', reject);
					server.listen(0, '127.0.0.1', () => resolve((server.address() as AddressInfo).port));
				})
		);
		const [port, tlsPort] = await Promise.all(ports);
		return { port: port!, tlsPort: tlsPort! };
	}

	close(): void {
		this.#plain.close();
		this.#door.close();
		this.#secure.close();
		this.#second.close();
		for (const socket of this.#sockets) socket.destroy();
		this.#upstream.close();
	}

	#greet(socket: Socket): void {
		let read = Buffer.alloc(0);
		const listen = (chunk: Buffer) => {
			read = Buffer.concat([read, chunk]);
			const host = serverNameIn(read);
			if (host === 'more' && read.length < MOST_HELLO) return;
			socket.off('data', listen);
			socket.pause();
			if (host === null || host === 'more') return void socket.destroy();
			this.#upstream.protocolOf(host).then(
				(protocol) => {
					this.#spoken.set(host, protocol);
					socket.unshift(read);
					this.#secure.emit('connection', socket);
				},
				() => socket.destroy()
			);
		};
		socket.on('data', listen);
	}

	#note(words: string): void {
		if (!this.log.notes.includes(words)) this.log.notes.push(words);
	}

	#count(applied: readonly number[]): void {
		applied.forEach((n, i) => (this.log.applied[i]! += n));
	}

	async #answer(request: Request, response: Response): Promise<void> {
		this.log.requests++;
		response.on('error', () => undefined);
		request.on('error', () => undefined);
		try {
			const asked = addressOf(request);
			const real = this.#realAddress(asked);
			await this.#serve(request, response, { url: new URL(real ?? asked), isForeign: real !== null });
		} catch {
			// The host cannot be reached: so it is for the page.
			cutOff(response);
		}
	}

	/** What the page's own host serves for another one, where a rewrite says so. */
	#realAddress(asked: string): string | null {
		const real = realAddress(asked);
		const isMeantSo = (own: Rewrite) => own.do === 'own-host' && real !== null && isMeant(real, { host: own.host });
		return this.options.rewrites.some(isMeantSo) ? real : null;
	}

	async #serve(
		request: Request,
		response: Response,
		{ url, isForeign }: { url: URL; isForeign: boolean }
	): Promise<void> {
		if (request.headers['service-worker'] === 'script') {
			this.#note('A service worker would answer instead of the lab: it was left out, for all variants.');
			return send(response, { status: 404, headers: {}, body: null });
		}
		const { rewrites } = this.options;
		const blocked = rewrites.findIndex((own) => own.do === 'block' && isMeant(url.href, own));
		if (blocked >= 0) {
			this.log.applied[blocked]!++;
			return send(response, { status: 204, headers: {}, body: null });
		}
		const later = rewrites.map((own) => (own.do === 'delay' && own.ms && isMeant(url.href, own) ? own.ms : 0));
		this.#count(later.map((ms) => (ms ? 1 : 0)));
		const begun = performance.now();
		const fromTwin = isWholeGet(request) ? (this.options.twin?.find(url.href) ?? null) : null;
		if (fromTwin) this.log.fromTwin++;
		const wait = later.reduce((sum, ms) => sum + ms, 0);
		if (fromTwin) {
			const { kept, body } = fromTwin;
			const answer = { url: url.href, status: kept.status, headers: { ...kept.headers }, body };
			const ready = this.#change(answer, request);
			await pauseUntil(begun + kept.waitMs + wait);
			const { status, headers, body: changedBody } = await ready;
			if (isStillFresh(request, headers)) return send(response, { status: 304, headers, body: null });
			return send(response, { status, headers, body: changedBody });
		}
		await this.#fromHost(request, response, { url, isForeign, begun, wait });
	}

	async #fromHost(
		request: Request,
		response: Response,
		{ url, isForeign, begun, wait }: { url: URL; isForeign: boolean; begun: number; wait: number }
	): Promise<void> {
		const { rewrites, twin } = this.options;
		const hasBody = request.method !== 'GET' && request.method !== 'HEAD';
		const told = { url: url.href, headers: {} };
		const headers = isForeign ? withoutSecrets(request.headers) : { ...request.headers };
		// Half of a file cannot be changed.
		if (rewrites.some((own) => own.do === 'replace' && isMeant(url.href, { address: own.address })))
			delete headers['range'];
		const answered = await this.#upstream.ask({
			method: request.method ?? 'GET',
			url,
			headers,
			body: hasBody ? request : null
		});
		const waitMs = performance.now() - begun;
		// A cookie of another host is none of the page's own.
		if (isForeign) delete answered.headers['set-cookie'];
		const { status } = answered;
		const whole = request.method === 'GET' && status === 200 && !isHuge(answered);
		const changes = whole && bodyRewrites(rewrites, { ...told, headers: answered.headers });
		const keeps = twin !== null && isWholeGet(request) && !isHuge(answered) && KEPT.has(status);
		if (!changes && !keeps) {
			if (wait) await pause(wait);
			const passed = cleaned(answered.headers);
			this.#count(changeHeaders(passed, url.href, rewrites));
			return send(response, { status, headers: passed, body: answered });
		}
		const body = await buffer(answered.body);
		if (keeps) twin.keep(url.href, { status, headers: answered.headers, waitMs }, body);
		if (wait) await pause(wait);
		const changedAnswer = await this.#change({ url: url.href, status, headers: answered.headers, body }, request);
		send(response, { status, headers: changedAnswer.headers, body: changedAnswer.body });
	}

	async #change(answer: Answer, request: Request): Promise<Answer> {
		const begun = performance.now();
		const { rewrites } = this.options;
		const isWhole = answer.status === 200 && answer.body.length > 0;
		const headers = cleaned(answer.headers);
		this.#count(changeHeaders(headers, answer.url, rewrites));
		if (!isWhole || !bodyRewrites(rewrites, answer)) return { ...answer, headers };
		const done = await changed({ ...answer, headers }, rewrites, String(request.headers['accept-encoding'] ?? ''));
		this.#count(done.applied);
		for (const note of done.notes) this.#note(note);
		this.log.workMs += performance.now() - begun;
		return done;
	}

	/** What is no request of HTTP goes through as it is. */
	async #tunnel(request: IncomingMessage, socket: Socket, head: Buffer): Promise<void> {
		try {
			const url = new URL(addressOf(request));
			const host = await this.#upstream.tunnel(url);
			const lines = [`${request.method} ${url.pathname}${url.search} HTTP/1.1`];
			for (let i = 0; i < request.rawHeaders.length; i += 2)
				lines.push(`${request.rawHeaders[i]}: ${request.rawHeaders[i + 1]}`);
			host.write(`${lines.join('\r\n')}\r\n\r\n`);
			host.write(head);
			host.on('error', () => socket.destroy());
			socket.on('error', () => host.destroy());
			host.pipe(socket);
			socket.pipe(host);
		} catch {
			socket.destroy();
		}
	}
}

const isWholeGet = ({ method, headers }: Request) => method === 'GET' && headers['range'] === undefined;

/** The browser has it, by the sum or the day that the host gave (RFC 9110, section 13). */
function isStillFresh({ headers: asked }: Request, { etag, 'last-modified': day }: Answered['headers']): boolean {
	if (asked['if-none-match'] !== undefined) return etag !== undefined && asked['if-none-match'].includes(etag);
	return day !== undefined && asked['if-modified-since'] === day;
}

const isHuge = ({ headers }: Pick<Answered, 'headers'>) => Number(headers['content-length'] ?? 0) > MOST_CHANGED_BYTES;

function addressOf(request: Request): string {
	const isSecure = 'encrypted' in request.socket && request.socket.encrypted === true;
	const host = request.headers.host ?? String(request.headers[constants.HTTP2_HEADER_AUTHORITY] ?? '');
	return `${isSecure || 'stream' in request ? 'https' : 'http'}://${host}${request.url ?? '/'}`;
}

/** Of no visitor and no site: what the page's own host is told is for that host alone. */
const NO_SECRETS = new Set([
	...['accept', 'accept-encoding', 'accept-language', 'user-agent', 'range', 'if-none-match', 'if-modified-since'],
	...['sec-fetch-dest', 'sec-fetch-mode', 'sec-ch-ua', 'sec-ch-ua-mobile', 'sec-ch-ua-platform']
]);

const withoutSecrets = (headers: Request['headers']): Request['headers'] =>
	Object.fromEntries(Object.entries(headers).filter(([name]) => NO_SECRETS.has(name)));

/** Other ways to the host would go around the lab. */
function cleaned(headers: Answered['headers']): Answered['headers'] {
	const kept = Object.entries(headers).filter(
		([name]) => !name.startsWith(':') && !OF_ONE_HOP.has(name) && name !== 'alt-svc'
	);
	return Object.fromEntries(kept);
}

function send(
	response: Response,
	{ status, headers, body }: { status: number; headers: Answered['headers']; body: Buffer | Answered | null }
): void {
	if (response.destroyed || response.writableEnded) return;
	// Both kinds of answer take the same headers; their types do not know of each other.
	const answer = response as ServerResponse;
	answer.writeHead(status, headers);
	if (body === null || BODILESS.has(status)) return void answer.end();
	if (Buffer.isBuffer(body)) return void answer.end(body);
	body.body.on('error', () => cutOff(response));
	body.body.pipe(answer);
}

function cutOff(response: Response): void {
	if ('stream' in response) response.stream.close(constants.NGHTTP2_INTERNAL_ERROR);
	else response.destroy();
}

async function pauseUntil(moment: number): Promise<void> {
	const wait = moment - performance.now();
	if (wait > 0) await pause(wait);
}
