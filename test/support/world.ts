/** Servers for tests: the simulated web and a host for trouble, each on a port of its own. */
import { createServer, type RequestListener, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createDemoWeb } from '../../demo-web/server';
import type { HostRule } from '../../src/lab/shaper/hostMap';

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

/** Pictures are drawn once and kept between test runs. */
export function startDemoWeb(): Promise<RunningServer> {
	return listen(createDemoWeb({ folder: join(tmpdir(), 'zafra-test-demo-web') }).server);
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

export async function until(condition: () => boolean | Promise<boolean>, withinMs: number, what: string): Promise<void> {
	const deadline = Date.now() + withinMs;
	while (!(await condition())) {
		if (Date.now() > deadline) throw new Error(`Waited ${withinMs / 1000} s in vain: ${what}`);
		await new Promise((next) => setTimeout(next, 100));
	}
}
