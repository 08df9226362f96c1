/** The simulated web's server: one port, the answer depends on the Host. */
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import { PictureMaker } from './make/pictures';
import { ServerClock } from './make/timing';
import { parlourBell } from './parties/parlourBell';
import { skerryLine } from './sites/skerryLine';
import type { Host, WorldResponse } from './world';

const compress = promisify(gzip);
const TEXT = /^(text\/|application\/(json|xml)|image\/svg)/;

export interface DemoWebOptions {
	/** Folder for pictures that are drawn once. */
	folder: string;
	/** Seed of all jitter. */
	seed?: number;
}

export interface DemoWeb {
	server: Server;
	hosts: Host[];
}

export function createDemoWeb({ folder, seed = 1 }: DemoWebOptions): DemoWeb {
	const workshop = { pictures: new PictureMaker(join(folder, 'pictures')) };
	const clock = new ServerClock(seed);
	const hosts: Host[] = [
		skerryLine('skerry-line.test', { chat: false, workshop }),
		skerryLine('with-chat.skerry-line.test', { chat: true, workshop }),
		parlourBell(workshop)
	];
	const byName = new Map(hosts.map((host) => [host.name, host]));
	const packed = new Map<string | Buffer, Promise<Buffer>>();

	async function answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
		const host = (request.headers.host ?? '').split(':')[0]!.toLowerCase();
		const url = new URL(request.url ?? '/', `http://${host || 'unknown'}`);
		const site = byName.get(host);
		const found = site
			? await site.respond({ host, path: url.pathname, query: url.searchParams, headers: request.headers, scheme: 'http' })
			: listOfHosts(host, hosts);
		const reply: WorldResponse = found ?? { status: 404, type: 'text/html', body: `<!doctype html><title>Not found</title><p>There is no ${url.pathname} on ${host}.` };
		if (reply.serverTime) await pause(clock.next(host, reply.serverTime));
		await send(request, response, reply);
	}

	async function send(request: IncomingMessage, response: ServerResponse, reply: WorldResponse): Promise<void> {
		const wantsGzip = /\bgzip\b/.test(String(request.headers['accept-encoding'] ?? ''));
		const packs = wantsGzip && reply.compress !== false && TEXT.test(reply.type);
		let body: Buffer = Buffer.from(reply.body);
		if (packs) {
			let small = packed.get(reply.body);
			if (!small) packed.set(reply.body, (small = compress(body)));
			body = await small;
		}
		response.writeHead(reply.status ?? 200, {
			'content-type': TEXT.test(reply.type) ? `${reply.type}; charset=utf-8` : reply.type,
			'content-length': String(body.length),
			...(packs ? { 'content-encoding': 'gzip', vary: 'accept-encoding' } : {}),
			...reply.headers
		});
		response.end(request.method === 'HEAD' ? undefined : body);
	}

	const server = createServer((request, response) => {
		answer(request, response).catch((error: Error) => {
			if (!response.headersSent) response.writeHead(500, { 'content-type': 'text/plain' });
			response.end(`The simulated web stumbled: ${error.message}`);
		});
	});
	server.keepAliveTimeout = 60_000;
	return { server, hosts };
}

function listOfHosts(host: string, hosts: readonly Host[]): WorldResponse {
	const rows = hosts.map(({ name, title }) => `<li><a href="http://${name}/">${name}</a>: ${title}</li>`).join('');
	return {
		status: 404,
		type: 'text/html',
		body: `<!doctype html><html lang="en"><title>Unknown host</title><h1>There is no ${host.replace(/[<&]/g, '')} here</h1><p>The simulated web knows these hosts:</p><ul>${rows}</ul>`
	};
}

function pause(ms: number): Promise<void> {
	return new Promise((resolve) => setTimeout(resolve, ms));
}
