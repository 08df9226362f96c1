/** A SOCKS5 proxy (RFC 1928, no authentication, CONNECT only) whose connections run through a shaped link. */
import { setTimeout as pause } from 'node:timers/promises';
import { createServer, connect, type NetConnectOpts, type Server, type Socket } from 'node:net';
import { lookup } from 'node:dns/promises';
import ipaddr from 'ipaddr.js';
import { isPublicAddress } from '$core/load/requests/publicAddress';
import { Link, type Flow, type Way } from './link';
import { OUTAGE_SLOW_MS, type Outage, type OutageKind } from '$core/load/journey/outage';
import { ruleFor, type HostRule, type HostTimes } from '$core/load/requests/hostMap';

export interface ShapeOptions {
	roundTripMs: number;
	downKbps: number;
	upKbps: number;
	/** Time of the first look-up of each host. */
	dnsMs: number;
	hostMap: HostRule[];
	hostTimes: HostTimes[];
	/** A service that is slow, refuses, or never answers. */
	outage?: Outage | null;
	/** Ports of the rewriting server on this machine: what goes to a host's usual ports goes through it. */
	through?: { port: number; tlsPort: number } | null;
}

export type ConnectionError = 'unresolvable' | 'refused' | 'private-address' | 'no-answer';

export interface ConnectionLog {
	host: string;
	port: number;
	/** Epoch ms. */
	startedAt: number;
	dnsMs: number;
	connectedAt: number | null;
	error: ConnectionError | null;
	/** Real round trip of the way there, as the connection showed it; null without one. */
	realMs: number | null;
	/** Round trip that the line asks for, host times included. */
	wantedMs: number;
	/** Bytes of the connection in each direction, TLS and all. */
	upBytes: number;
	downBytes: number;
}

export interface ShapeLog {
	connections: ConnectionLog[];
	/** Most connections open at once. */
	mostOpen: number;
}

/** Stop reading from the far end while this much waits for the link. */
const HIGH_WATER = 256 * 1024;
const CONNECT_TIMEOUT_MS = 20_000;
const REPLY: Record<ConnectionError | 'ok', number> = {
	ok: 0,
	'private-address': 2,
	unresolvable: 4,
	'no-answer': 4,
	refused: 5
};

class RefusedConnection extends Error {
	constructor(readonly reason: ConnectionError) {
		super(reason);
	}
}

/** One shaped network for one load. */
export class ShapedProxy {
	readonly log: ShapeLog = { connections: [], mostOpen: 0 };
	#server: Server;
	#sockets = new Set<Socket>();
	#open = 0;
	#down: Link;
	#up: Link;
	#names = new Map<string, Promise<string>>();
	#lookedUp = new Set<string>();
	/** Quickest real connection to each host. */
	#paths = new Map<string, number>();

	/** @param dial opens the real connection; another one lets a test lay a host far away */
	constructor(
		private readonly options: ShapeOptions,
		private readonly dial: (to: NetConnectOpts) => Socket = connect
	) {
		const { downKbps, upKbps } = options;
		this.#down = new Link({ bytesPerMs: downKbps / 8 });
		this.#up = new Link({ bytesPerMs: upKbps / 8 });
		this.#server = createServer({ noDelay: true }, (client) => this.#accept(client));
	}

	listen(): Promise<number> {
		return new Promise((resolve, reject) => {
			this.#server.once('error', reject);
			this.#server.listen(0, '127.0.0.1', () => resolve((this.#server.address() as { port: number }).port));
		});
	}

	/** Cut all connections and forget what was looked up, as if the visitor came back another day. */
	renew(): void {
		for (const socket of this.#sockets) socket.destroy();
		this.#lookedUp.clear();
		this.log.connections.length = 0;
		this.log.mostOpen = 0;
	}

	close(): void {
		this.#server.close();
		for (const socket of this.#sockets) socket.destroy();
		this.#down.close();
		this.#up.close();
	}

	#keep(socket: Socket): void {
		this.#sockets.add(socket);
		socket.on('close', () => this.#sockets.delete(socket));
		socket.on('error', () => socket.destroy());
	}

	#accept(client: Socket): void {
		this.#keep(client);
		let greeted = false;
		let pending = Buffer.alloc(0);
		const read = (chunk: Buffer) => {
			pending = Buffer.concat([pending, chunk]);
			if (!greeted) {
				if (pending.length < 2 || pending.length < 2 + pending[1]!) return;
				if (pending[0] !== 5) return client.destroy();
				pending = pending.subarray(2 + pending[1]!);
				greeted = true;
				client.write(Buffer.from([5, 0]));
			}
			const target = parseConnect(pending);
			if (target === 'more') return;
			client.off('data', read);
			if (target === 'bad') return client.destroy();
			client.pause();
			void this.#connect(client, target, pending.subarray(target.size));
		};
		client.on('data', read);
	}

	async #connect(client: Socket, target: { host: string; port: number }, early: Buffer): Promise<void> {
		const times = ruleFor(target.host, this.options.hostTimes);
		const extraRoundTripMs = times?.extraRoundTripMs ?? 0;
		const roundTripMs = this.options.roundTripMs + extraRoundTripMs;
		const entry: ConnectionLog = {
			...target,
			startedAt: epochNow(),
			dnsMs: this.#lookedUp.has(target.host) ? 0 : (times?.dnsMs ?? this.options.dnsMs),
			connectedAt: null,
			error: null,
			realMs: null,
			wantedMs: roundTripMs,
			upBytes: 0,
			downBytes: 0
		};
		this.log.connections.push(entry);
		this.#lookedUp.add(target.host);
		const begun = performance.now();
		const outage = this.#outageOf(target.host);
		let server: Socket | null = null;
		try {
			if (outage === 'refused') throw new RefusedConnection('refused');
			const dialled = await this.#dial(target.host, target.port);
			server = dialled.socket;
			entry.realMs = this.#notePath(target.host, dialled.connectMs);
		} catch (error) {
			entry.error = error instanceof RefusedConnection ? error.reason : 'refused';
		}
		const missingMs = Math.max(0, roundTripMs - wayOf(entry.realMs));
		const handshake = entry.error === 'unresolvable' || entry.error === 'private-address' ? 0 : roundTripMs;
		await until(begun + entry.dnsMs + handshake + (outage === 'slow' ? OUTAGE_SLOW_MS : 0));
		if (client.destroyed) return void server?.destroy();
		client.write(Buffer.from([5, REPLY[entry.error ?? 'ok'], 0, 1, 0, 0, 0, 0, 0, 0]));
		if (!server) return void client.end();
		entry.connectedAt = epochNow();
		if (outage === 'silent') return this.#fallSilent(client, server);
		this.#bridge(client, server, early, entry, { roundTripMs, delayMs: missingMs / 2 });
	}

	/** Connect to where the host map, or the name service, says that the host is. */
	async #dial(host: string, port: number): Promise<{ socket: Socket; connectMs: number }> {
		const rule = ruleFor(host, this.options.hostMap);
		let address: string;
		let realPort = port;
		if (rule) {
			address = rule.address;
			if (rule.publicOnly && !isPublicAddress(await this.#resolve(address)))
				throw new RefusedConnection('private-address');
			if (port === 80) realPort = rule.port;
			else if (port === 443 && rule.tlsPort !== null) realPort = rule.tlsPort;
			else throw new RefusedConnection('refused');
		} else {
			address = await this.#resolve(host);
			if (!isPublicAddress(address)) throw new RefusedConnection('private-address');
		}
		const { through } = this.options;
		if (through && (port === 80 || port === 443)) {
			address = '127.0.0.1';
			realPort = port === 443 ? through.tlsPort : through.port;
		}
		return new Promise((resolve, reject) => {
			const begun = performance.now();
			const socket = this.dial({ host: address, port: realPort, noDelay: true });
			const timer = setTimeout(() => {
				socket.destroy();
				reject(new RefusedConnection('no-answer'));
			}, CONNECT_TIMEOUT_MS);
			socket.once('connect', () => {
				clearTimeout(timer);
				resolve({ socket, connectMs: performance.now() - begun });
			});
			socket.once('error', () => {
				clearTimeout(timer);
				reject(new RefusedConnection('refused'));
			});
			this.#keep(socket);
		});
	}

	#outageOf(host: string): OutageKind | null {
		const { outage } = this.options;
		return outage?.hosts.includes(host) ? outage.how : null;
	}

	/** Connected, and never a word more, whatever is asked. */
	#fallSilent(client: Socket, server: Socket): void {
		server.destroy();
		client.resume();
	}

	/** A handshake is one round trip; a slow one says more of the machine than of the way, so the quickest counts. */
	#notePath(host: string, connectMs: number): number {
		const quickest = Math.min(connectMs, this.#paths.get(host) ?? Infinity);
		this.#paths.set(host, quickest);
		return quickest;
	}

	#resolve(host: string): Promise<string> {
		if (ipaddr.isValid(host)) return Promise.resolve(host);
		let pending = this.#names.get(host);
		if (!pending) {
			pending = lookup(host).then(
				({ address }) => address,
				() => {
					throw new RefusedConnection('unresolvable');
				}
			);
			this.#names.set(host, pending);
		}
		return pending;
	}

	#bridge(client: Socket, server: Socket, early: Buffer, entry: ConnectionLog, way: Way): void {
		this.#open++;
		this.log.mostOpen = Math.max(this.log.mostOpen, this.#open);
		const up = this.#flow(this.#up, client, server, way);
		const down = this.#flow(this.#down, server, client, way);
		let counted = true;
		const closed = () => {
			if (!counted || !client.destroyed || !server.destroyed) return;
			counted = false;
			this.#open--;
		};
		const pump = (from: Socket, flow: Flow, field: 'upBytes' | 'downBytes') => {
			from.on('data', (chunk: Buffer) => {
				entry[field] += chunk.length;
				flow.send(chunk);
				if (flow.queuedBytes > HIGH_WATER) from.pause();
			});
			from.on('end', () => flow.end());
			from.on('close', () => {
				flow.end();
				closed();
			});
		};
		pump(client, up, 'upBytes');
		pump(server, down, 'downBytes');
		// A client that is gone needs nothing more; the server must not wait for it.
		client.on('close', () => {
			down.drop();
			server.destroy();
		});
		if (early.length) {
			entry.upBytes += early.length;
			up.send(early);
		}
		client.resume();
	}

	#flow(link: Link, from: Socket, to: Socket, way: Way): Flow {
		const handlers = {
			onData: (chunk: Buffer) => void to.write(chunk),
			onEnd: () => void to.end(),
			onDrain: () => {
				if (from.isPaused() && flow.queuedBytes < HIGH_WATER / 2) from.resume();
			}
		};
		const flow: Flow = link.open(handlers, way);
		return flow;
	}
}

function parseConnect(bytes: Buffer): { host: string; port: number; size: number } | 'more' | 'bad' {
	if (bytes.length < 5) return 'more';
	if (bytes[0] !== 5 || bytes[1] !== 1) return 'bad';
	const kind = bytes[3];
	const length = kind === 1 ? 4 : kind === 4 ? 16 : kind === 3 ? bytes[4]! : -1;
	if (length < 0) return 'bad';
	const start = kind === 3 ? 5 : 4;
	const size = start + length + 2;
	if (bytes.length < size) return 'more';
	const raw = bytes.subarray(start, start + length);
	const host = kind === 3 ? raw.toString('latin1') : ipaddr.fromByteArray([...raw]).toString();
	return { host, port: bytes.readUInt16BE(start + length), size };
}

/** Connecting takes the program itself some ms, on this machine too: a way shorter than that is none (measured). */
const LEAST_WAY_MS = 5;

function wayOf(realMs: number | null): number {
	return realMs === null || realMs < LEAST_WAY_MS ? 0 : realMs;
}

function epochNow(): number {
	return performance.timeOrigin + performance.now();
}

function until(moment: number): Promise<void> {
	const wait = moment - performance.now() - 1.5;
	return wait <= 0 ? Promise.resolve() : pause(wait);
}
