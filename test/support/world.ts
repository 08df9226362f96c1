/** Servers for tests: the simulated web and a host for trouble, each on a port of its own. */
import type { CalmLimits } from '$core/load/vitals/calm';
import { createServer, type RequestListener, type Server } from 'node:http';
import type { AddressInfo, Socket } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createDemoWeb, type DemoWeb } from '../../demo-web/server';
import type { HostRule } from '$core/load/requests/hostMap';

/** Beside its own test no machine is calm: a lab under test neither waits nor marks. */
export const UNWATCHED: CalmLimits = { share: 1, burst: 1, waitMs: 0, restMs: 0 };

export interface RunningServer {
	port: number;
	close(): void;
}

export async function listen(server: Server): Promise<RunningServer> {
	await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
	return {
		port: (server.address() as AddressInfo).port,
		close() {
			server.closeAllConnections();
			server.close();
		}
	};
}

export function serve(listener: RequestListener): Promise<RunningServer> {
	return listen(createServer(listener));
}

export interface RunningWorld extends RunningServer {
	tlsPort: number;
	wrongPort: number;
	/** What the lab must trust. */
	keyHash: string;
	/** Sends all of `*.test` there. */
	rules: HostRule[];
	store: DemoWeb['store'];
}

/**
 * Pictures and certificates are made once and kept between test runs.
 *
 * @param zafra where the app listens, for sites with its visits’ script
 * @param weeks by which what happens in the world is moved
 */
export async function startDemoWeb(zafra: string | null = null, weeks = 0): Promise<RunningWorld> {
	const world = await createDemoWeb({ folder: join(tmpdir(), 'zafra-test-demo-web'), zafra, weeks });
	const [http, https, wrong] = await Promise.all([
		listen(world.http),
		listenSecure(world.https),
		listenSecure(world.wrongCertificate)
	]);
	return {
		port: http.port,
		tlsPort: https.port,
		wrongPort: wrong.port,
		keyHash: world.certificates.keyHash,
		rules: [{ pattern: '*.test', address: '127.0.0.1', port: http.port, tlsPort: https.port }],
		store: world.store,
		close() {
			for (const server of [http, https, wrong]) server.close();
		}
	};
}

async function listenSecure(server: DemoWeb['https']): Promise<RunningServer> {
	const sockets = new Set<Socket>();
	server.on('connection', (socket: Socket) => {
		sockets.add(socket);
		socket.on('close', () => sockets.delete(socket));
	});
	await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
	return {
		port: (server.address() as AddressInfo).port,
		close() {
			for (const socket of sockets) socket.destroy();
			server.close();
		}
	};
}

export function rule(pattern: string, port: number): HostRule {
	return { pattern, address: '127.0.0.1', port, tlsPort: null };
}

/** A port that nobody listens on. */
export async function freePort(): Promise<number> {
	const { port, close } = await serve(() => undefined);
	close();
	return port;
}

export async function until(
	condition: () => boolean | Promise<boolean>,
	withinMs: number,
	what: string
): Promise<void> {
	const deadline = performance.now() + withinMs;
	while (!(await condition())) {
		if (performance.now() > deadline) throw new Error(`Waited ${withinMs / 1000} s in vain: ${what}`);
		await new Promise((next) => setTimeout(next, 100));
	}
}
