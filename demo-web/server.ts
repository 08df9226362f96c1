/** The simulated web's servers: HTTP, and HTTPS with HTTP/2; the answer depends on the host. */
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { createSecureServer, type Http2SecureServer } from 'node:http2';
import { createHash } from 'node:crypto';
import { join } from 'node:path';
import { createSecureContext } from 'node:tls';
import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import { escapeHtml } from './builders/render';
import { allHosts, hostTimes, SITES, startingStates, VARIANTS } from './hosts';
import { PictureMaker } from './make/pictures';
import { ServerClock } from './make/timing';
import { answerNotes } from './parties/notes';
import { answerParty, PARTY_HOSTS } from './parties/parties';
import { answerVisit } from './parties/zafra';
import { Site } from './site';
import { answerFaults } from './special/faults';
import { answerRegister } from './special/resolver';
import { answerSwitchboard } from './special/switchboard';
import { answerTruth } from './special/truth';
import { answerPanel } from './visitors/panel';
import { StateStore } from './state/store';
import { certificatesFor, type Certificates } from './tls/certificates';
import { isText, type Answer, type Ask, type HostAnswer } from './world';

const compress = promisify(gzip);
const PARTIES = new Set(Object.values(PARTY_HOSTS));
const MOST_BODY = 100_000;
/** About one in three requests lies further than this from its middle, on the log scale. */
const JITTER = 0.08;

export interface DemoWebOptions {
	/** Folder for pictures and certificates that are made once, and the switchboard's state. */
	folder: string;
	/** Seed of all jitter. */
	seed?: number;
	/** Keep the switchboard's state in a file. */
	keepState?: boolean;
	/** Where Zafra listens: sites with its visits’ script hand requests on to it. */
	zafra?: string | null;
	/** By how many weeks what happens in the world is moved. */
	weeks?: number;
}

export interface DemoWeb {
	http: Server;
	https: Http2SecureServer;
	/** Serves a certificate for another name by an authority that nobody trusts. */
	wrongCertificate: Http2SecureServer;
	certificates: Certificates;
	store: StateStore;
	/** Draw all pictures that the published sites show, unless the folder holds them already. */
	drawPictures(): Promise<void>;
}

export async function createDemoWeb({
	folder,
	seed = 1,
	keepState = false,
	zafra = null,
	weeks = 0
}: DemoWebOptions): Promise<DemoWeb> {
	const pictures = new PictureMaker(join(folder, 'pictures'));
	const clock = new ServerClock(seed);
	const jitter = (host: string, middleMs: number) => clock.next(host, { middleMs, spread: JITTER });
	const sites = new Map(SITES.map((model) => [model.host, new Site(model, pictures, jitter)]));
	for (const [host, { of }] of Object.entries(VARIANTS))
		sites.set(host, new Site({ ...sites.get(of)!.model, host }, pictures, jitter));
	const previews = new Map([...sites].map(([host, { model }]) => [host, new Site(model, pictures, jitter)]));
	const forget = () => [...sites.values(), ...previews.values()].forEach((site) => site.forget());
	const store = new StateStore(startingStates(), keepState ? join(folder, 'state.json') : null, forget);
	const certificates = await certificatesFor(join(folder, 'tls'), allHosts());
	const world = new World({ sites, previews, store, pictures, jitter, zafra, weeks });
	const drawPictures = async () => {
		for (const { host } of SITES) await sites.get(host)!.drawPictures(store.published(host).shrinkery);
	};
	return { ...serversOf(world, certificates, store), certificates, store, drawPictures };
}

function serversOf(world: World, certificates: Certificates, store: StateStore) {
	const http = createServer(world.listener(false));
	http.keepAliveTimeout = 60_000;
	const https = createSecureServer({
		key: certificates.key,
		cert: certificates.certificate,
		allowHTTP1: true,
		// A host that is switched to plain HTTP has no certificate to show.
		SNICallback: (name, done) =>
			store.has(name) && !store.published(name).https
				? done(new Error('no https here'))
				: done(null, createSecureContext({ key: certificates.key, cert: certificates.certificate }))
	});
	https.on('request', world.listener(true) as never);
	https.on('sessionError', () => undefined);
	const { key, certificate } = certificates.wrong;
	const wrongCertificate = createSecureServer({ key, cert: certificate, allowHTTP1: true });
	wrongCertificate.on('request', world.listener(true) as never);
	return { http, https, wrongCertificate };
}

/** Texts that were compressed once are kept, up to so many. */
const MOST_PACKED = 500;
/** Shorter texts are sent as they are. */
const LEAST_PACKED = 200;

interface WorldParts {
	sites: ReadonlyMap<string, Site>;
	previews: ReadonlyMap<string, Site>;
	store: StateStore;
	pictures: PictureMaker;
	jitter: (host: string, middleMs: number) => number;
	zafra: string | null;
	weeks: number;
}

/** Answers for every host of the simulated web. */
class World {
	#packed = new WeakMap<object, Promise<Buffer>>();
	#packedText = new Map<string, Promise<Buffer>>();

	constructor(private readonly parts: WorldParts) {}

	listener(https: boolean) {
		return (request: IncomingMessage, response: ServerResponse) => {
			response.on('error', () => undefined);
			this.#handle(request, response, https).catch((error: Error) => {
				if (!response.headersSent) response.writeHead(500, { 'content-type': 'text/plain' });
				response.end(`The simulated web stumbled: ${error.message}`);
			});
		};
	}

	async #handle(request: IncomingMessage, response: ServerResponse, https: boolean): Promise<void> {
		const authority = String(request.headers[':authority'] ?? request.headers.host ?? '');
		const host = authority.split(':')[0]!.toLowerCase();
		const url = new URL(request.url ?? '/', `http://${host || 'unknown'}`);
		const body = request.method === 'POST' || request.method === 'PUT' ? await readBody(request) : '';
		const ask: Ask = {
			host,
			path: url.pathname,
			query: url.searchParams,
			method: request.method ?? 'GET',
			headers: request.headers,
			https,
			body
		};
		const answer = (await this.#find(ask)) ?? notFound(ask);
		if (typeof answer === 'function') return answer({ ask, request, response });
		if (answer.waitMs) await new Promise((next) => setTimeout(next, answer.waitMs));
		await this.#send(ask, response, answer);
	}

	async #find(ask: Ask): Promise<HostAnswer> {
		if (ask.host === 'switchboard.test')
			return ask.path === '/hosts'
				? { type: 'application/json', body: JSON.stringify(hostTimes()) }
				: answerSwitchboard(ask, this.parts.store);
		if (ask.host === 'faults.test') return answerFaults(ask.path, ask.query, ask.https);
		if (ask.host === 'truth.test') return answerTruth(ask.path, this.parts.pictures);
		if (ask.host === 'field-panel.test') return answerPanel(ask, this.parts.weeks);
		if (ask.host === 'address-book.test') return answerRegister(ask);
		const notes = answerNotes(ask);
		if (notes) return notes;
		if (PARTIES.has(ask.host))
			return answerParty(ask, this.parts.pictures, (middleMs) => this.parts.jitter(ask.host, middleMs));
		return this.#findOnSite(ask);
	}

	async #findOnSite(ask: Ask): Promise<HostAnswer> {
		const isPreview = ask.host.startsWith('preview.');
		const live = ask.host.replace(/^(preview|cdn)\./, '');
		const site = (isPreview ? this.parts.previews : this.parts.sites).get(live);
		if (!site) return listOfHosts(ask.host, [...this.parts.sites.keys()]);
		const state = isPreview ? this.parts.store.staged(live) : this.parts.store.published(live);
		const scheme = state.https ? 'https' : 'http';
		if (state.https !== ask.https && !ask.host.startsWith('cdn.')) {
			const location = `${scheme}://${ask.host}${ask.path}`;
			return { status: 301, type: 'text/plain', body: '', headers: { location } };
		}
		const visit = state.visits ? await answerVisit(ask, this.parts.zafra) : null;
		if (visit) return visit;
		return site.answer(ask, state, `${scheme}://${isPreview ? ask.host : live}`);
	}

	#pack(body: string | Buffer): Promise<Buffer> {
		const packed = typeof body === 'string' ? this.#packedText.get(body) : this.#packed.get(body);
		if (packed) return packed;
		const made = compress(body);
		if (typeof body !== 'string') this.#packed.set(body, made);
		else {
			if (this.#packedText.size > MOST_PACKED) this.#packedText.clear();
			this.#packedText.set(body, made);
		}
		return made;
	}

	async #send(ask: Ask, response: ServerResponse, answer: Answer): Promise<void> {
		const packs =
			answer.compress !== false &&
			isText(answer.type) &&
			answer.body.length > LEAST_PACKED &&
			/\bgzip\b/.test(String(ask.headers['accept-encoding'] ?? ''));
		const body = packs ? await this.#pack(answer.body) : Buffer.from(answer.body);
		const status = answer.status ?? 200;
		const etag = answer.headers?.etag ?? (ask.method === 'GET' && status === 200 ? etagOf(body) : undefined);
		const headers = {
			'content-type': isText(answer.type) ? `${answer.type}; charset=utf-8` : answer.type,
			...(packs ? { 'content-encoding': 'gzip', vary: 'accept-encoding' } : {}),
			...answer.headers,
			...(etag ? { etag } : {}),
			'x-world-version': String(this.parts.store.version)
		};
		if (etag && ask.headers['if-none-match'] === etag) {
			response.writeHead(304, headers);
			return void response.end();
		}
		response.writeHead(status, status === 204 ? headers : { ...headers, 'content-length': String(body.length) });
		response.end(ask.method === 'HEAD' ? undefined : body);
	}
}

function etagOf(body: Buffer): string {
	return `"${createHash('sha1').update(body).digest('hex').slice(0, 16)}"`;
}

async function readBody(request: IncomingMessage): Promise<string> {
	let body = '';
	for await (const chunk of request) {
		body += String(chunk);
		if (body.length > MOST_BODY) return '';
	}
	return body;
}

function notFound({ host, path }: Ask): Answer {
	return {
		status: 404,
		type: 'text/html',
		body: `<!doctype html><html lang="en"><title>Not found</title><h1>Not found</h1><p>There is no ${escapeHtml(path)} on ${escapeHtml(host)}.</p></html>`
	};
}

function listOfHosts(host: string, hosts: readonly string[]): Answer {
	const rows = [...hosts, ...PARTIES, 'switchboard.test', 'faults.test', 'truth.test']
		.map((name) => `<li>${name}</li>`)
		.join('');
	return {
		status: 404,
		type: 'text/html',
		body: `<!doctype html><html lang="en"><title>Unknown host</title><h1>There is no ${escapeHtml(host)} here</h1><p>The simulated web knows these hosts:</p><ul>${rows}</ul></html>`
	};
}
