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
import { answerParty, PARTY_HOSTS } from './parties/parties';
import { Site } from './site';
import { answerFaults } from './special/faults';
import { answerSwitchboard } from './special/switchboard';
import { answerTruth } from './special/truth';
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

export async function createDemoWeb({ folder, seed = 1, keepState = false }: DemoWebOptions): Promise<DemoWeb> {
	const pictures = new PictureMaker(join(folder, 'pictures'));
	const clock = new ServerClock(seed);
	const jitter = (host: string, middleMs: number) => clock.next(host, { middleMs, spread: JITTER });
	const store = new StateStore(startingStates(), keepState ? join(folder, 'state.json') : null, () => forget());
	const certificates = await certificatesFor(join(folder, 'tls'), allHosts());
	const sites = new Map(SITES.map((model) => [model.host, new Site(model, pictures, jitter)]));
	for (const [host, { of }] of Object.entries(VARIANTS))
		sites.set(host, new Site({ ...sites.get(of)!.model, host }, pictures, jitter));
	const previews = new Map([...sites].map(([host, { model }]) => [host, new Site(model, pictures, jitter)]));
	const forget = () => [...sites.values(), ...previews.values()].forEach((site) => site.forget());
	const packed = new WeakMap<object, Promise<Buffer>>();
	const packedText = new Map<string, Promise<Buffer>>();

	async function find(ask: Ask): Promise<HostAnswer> {
		if (ask.host === 'switchboard.test')
			return ask.path === '/hosts'
				? { type: 'application/json', body: JSON.stringify(hostTimes()) }
				: answerSwitchboard(ask, store);
		if (ask.host === 'faults.test') return answerFaults(ask.path, ask.query, ask.https);
		if (ask.host === 'truth.test') return answerTruth(ask.path, pictures);
		if (PARTIES.has(ask.host)) return answerParty(ask, pictures, (middleMs) => jitter(ask.host, middleMs));
		const isPreview = ask.host.startsWith('preview.');
		const live = ask.host.replace(/^(preview|cdn)\./, '');
		const site = (isPreview ? previews : sites).get(live);
		if (!site) return listOfHosts(ask.host, [...sites.keys()]);
		const state = isPreview ? store.staged(live) : store.published(live);
		if (state.https !== ask.https && !ask.host.startsWith('cdn.'))
			return {
				status: 301,
				type: 'text/plain',
				body: '',
				headers: { location: `http${state.https ? 's' : ''}://${ask.host}${ask.path}` }
			};
		return site.answer(ask, state, `http${state.https ? 's' : ''}://${isPreview ? ask.host : live}`);
	}

	async function handle(request: IncomingMessage, response: ServerResponse, https: boolean): Promise<void> {
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
		const answer = (await find(ask)) ?? notFound(ask);
		if (typeof answer === 'function') return answer({ ask, request, response });
		if (answer.waitMs) await new Promise((next) => setTimeout(next, answer.waitMs));
		await send(ask, response, answer);
	}

	function pack(body: string | Buffer): Promise<Buffer> {
		const known = typeof body === 'string' ? packedText.get(body) : packed.get(body);
		if (known) return known;
		const made = compress(body);
		if (typeof body !== 'string') packed.set(body, made);
		else {
			if (packedText.size > 500) packedText.clear();
			packedText.set(body, made);
		}
		return made;
	}

	async function send(ask: Ask, response: ServerResponse, answer: Answer): Promise<void> {
		const packs =
			answer.compress !== false &&
			isText(answer.type) &&
			answer.body.length > 200 &&
			/\bgzip\b/.test(String(ask.headers['accept-encoding'] ?? ''));
		const body = packs ? await pack(answer.body) : Buffer.from(answer.body);
		const etag =
			answer.headers?.etag ??
			(ask.method === 'GET' && (answer.status ?? 200) === 200
				? `"${createHash('sha1').update(body).digest('hex').slice(0, 16)}"`
				: undefined);
		const headers = {
			'content-type': isText(answer.type) ? `${answer.type}; charset=utf-8` : answer.type,
			...(packs ? { 'content-encoding': 'gzip', vary: 'accept-encoding' } : {}),
			...answer.headers,
			...(etag ? { etag } : {}),
			'x-world-version': String(store.version)
		};
		if (etag && ask.headers['if-none-match'] === etag) {
			response.writeHead(304, headers);
			return void response.end();
		}
		response.writeHead(
			answer.status ?? 200,
			answer.status === 204 ? headers : { ...headers, 'content-length': String(body.length) }
		);
		response.end(ask.method === 'HEAD' ? undefined : body);
	}

	const listener = (https: boolean) => (request: IncomingMessage, response: ServerResponse) => {
		response.on('error', () => undefined);
		handle(request, response, https).catch((error: Error) => {
			if (!response.headersSent) response.writeHead(500, { 'content-type': 'text/plain' });
			response.end(`The simulated web stumbled: ${error.message}`);
		});
	};
	const secure = (pair: { key: string; certificate: string }) =>
		createSecureServer({
			key: pair.key,
			cert: pair.certificate,
			allowHTTP1: true,
			// A host that is switched to plain HTTP has no certificate to show.
			SNICallback: (name, done) =>
				store.has(name) && !store.published(name).https
					? done(new Error('no https here'))
					: done(null, createSecureContext({ key: pair.key, cert: pair.certificate }))
		});
	const http = createServer(listener(false));
	http.keepAliveTimeout = 60_000;
	const https = secure(certificates);
	https.on('request', listener(true) as never);
	https.on('sessionError', () => undefined);
	const wrongCertificate = createSecureServer({
		key: certificates.wrong.key,
		cert: certificates.wrong.certificate,
		allowHTTP1: true
	});
	wrongCertificate.on('request', listener(true) as never);
	const drawPictures = async () => {
		for (const { host } of SITES) await sites.get(host)!.drawPictures(store.published(host).shrinkery);
	};
	return { http, https, wrongCertificate, certificates, store, drawPictures };
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
