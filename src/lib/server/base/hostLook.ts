/** Looking at a host as it really is: its name resolved, connections made, its network's owner asked for. */
import { Resolver } from 'node:dns/promises';
import { getServers } from 'node:dns';
import { connect, type Socket } from 'node:net';
import { connect as connectTls } from 'node:tls';
import {
	ownerFromRdap,
	type HostLook,
	type NameServer,
	type NetworkOwner,
	type Resolved
} from '$core/load/requests/hostLook';
import { ruleFor } from '$core/load/requests/hostMap';
import { isPublicAddress } from '$core/load/requests/publicAddress';
import { fetchOutward, OutwardFault, type Outward } from './outward';

export interface HostLookSettings {
	/** The machine's own where none are named. */
	resolvers: readonly NameServer[];
	/** Address of an RDAP service (RFC 9082), to which `/ip/…` is added; empty asks nobody. */
	rdap: string;
}

/** Connections one after the other: their range stands beside the middle. */
const TRIES = 3;
const WITHIN_MS = 5000;
const RDAP = { withinMs: 10_000, mostBytes: 500_000, accept: 'application/rdap+json, application/json' };

/** Nothing is thrown: what could not be asked says why. */
export async function lookAtHost(
	{ host, isTls }: { host: string; isTls: boolean },
	{ resolvers, rdap }: HostLookSettings,
	outward: Outward
): Promise<HostLook> {
	const named = resolvers.length ? resolvers : ownServers();
	const resolved: Resolved[] = [];
	for (const server of named) resolved.push(await resolveBy(server, host));
	const [found = null] = resolved.flatMap(({ addresses }) => addresses);
	const target = targetOf({ host, isTls, found }, outward);
	const connected = 'problem' in target ? { ...NO_CONNECTION, problem: target.problem } : await connectTo(target, host);
	return {
		host,
		at: new Date().toISOString(),
		resolved,
		address: 'problem' in target ? null : target.address,
		isMapped: 'isMapped' in target && target.isMapped,
		...connected,
		...(await ownerOf(found, rdap, outward))
	};
}

const ownServers = (): NameServer[] =>
	getServers()
		.slice(0, 2)
		.map((address) => ({ name: 'of this machine', address }));

async function resolveBy({ name, address }: NameServer, host: string): Promise<Resolved> {
	const resolver = new Resolver({ timeout: WITHIN_MS, tries: 1 });
	resolver.setServers([address]);
	const timed = async () => {
		const begun = performance.now();
		const addresses = await resolver.resolve4(host).catch((error: NodeJS.ErrnoException) => {
			// A host with addresses of the newer kind alone.
			if (error.code === 'ENODATA') return resolver.resolve6(host);
			throw error;
		});
		return { ms: Math.round((performance.now() - begun) * 10) / 10, addresses };
	};
	try {
		const first = await timed();
		const again = await timed();
		return {
			resolver: name,
			firstMs: first.ms,
			againMs: again.ms,
			addresses: first.addresses.slice(0, 8),
			problem: null
		};
	} catch (error) {
		const { code = '' } = error as NodeJS.ErrnoException;
		const problem =
			code === 'ENOTFOUND' || code === 'ENODATA' ? 'it does not know the host' : `it did not answer (${code})`;
		return { resolver: name, firstMs: null, againMs: null, addresses: [], problem };
	}
}

interface Target {
	address: string;
	port: number;
	isTls: boolean;
	isMapped: boolean;
}

function targetOf(
	{ host, isTls, found }: { host: string; isTls: boolean; found: string | null },
	{ hostMap }: Outward
): Target | { problem: string } {
	const rule = ruleFor(host, hostMap);
	if (rule) {
		const port = isTls ? rule.tlsPort : rule.port;
		return port === null
			? { problem: 'the host map leads to no such port' }
			: { address: rule.address, port, isTls, isMapped: true };
	}
	if (!found) return { problem: 'no resolver knows an address' };
	if (!isPublicAddress(found)) return { problem: 'its address is a private one, which is not connected to' };
	return { address: found, port: isTls ? 443 : 80, isTls, isMapped: false };
}

interface Connected {
	connectMs: number[];
	tlsMs: number[];
	tlsVersion: string | null;
	problem: string | null;
}

const NO_CONNECTION: Connected = { connectMs: [], tlsMs: [], tlsVersion: null, problem: null };

async function connectTo(target: Target, host: string): Promise<Connected> {
	const connected: Connected = { ...NO_CONNECTION, connectMs: [], tlsMs: [] };
	for (let i = 0; i < TRIES; i++)
		try {
			await connectOnce(target, host, connected);
		} catch (error) {
			return { ...connected, problem: (error as Error).message };
		}
	return connected;
}

function connectOnce({ address, port, isTls }: Target, servername: string, connected: Connected): Promise<void> {
	return new Promise((resolve, reject) => {
		const begun = performance.now();
		const socket: Socket = connect({ host: address, port, timeout: WITHIN_MS });
		const fail = (words: string) => {
			socket.destroy();
			reject(new Error(words));
		};
		socket.once('timeout', () => fail('it did not answer in time'));
		socket.once('error', ({ code }: NodeJS.ErrnoException) =>
			fail(code === 'ECONNREFUSED' ? 'it refused the connection' : `the connection broke (${code ?? 'unknown'})`)
		);
		socket.once('connect', () => {
			const connectedAt = performance.now();
			connected.connectMs.push(tenths(connectedAt - begun));
			if (!isTls) {
				socket.destroy();
				return resolve();
			}
			// How long it takes is asked here, not whether it is trusted: the loads say that.
			const secure = connectTls({ socket, servername, rejectUnauthorized: false, ALPNProtocols: ['h2', 'http/1.1'] });
			secure.once('error', () => fail('it shook no hands (TLS)'));
			secure.once('secureConnect', () => {
				connected.tlsMs.push(tenths(performance.now() - connectedAt));
				connected.tlsVersion = secure.getProtocol();
				secure.destroy();
				resolve();
			});
		});
	});
}

const tenths = (ms: number) => Math.round(ms * 10) / 10;

async function ownerOf(
	address: string | null,
	rdap: string,
	outward: Outward
): Promise<{ owner: NetworkOwner | null; ownerProblem: string | null }> {
	const nobody = (ownerProblem: string) => ({ owner: null, ownerProblem });
	if (!address) return nobody('no address is known');
	if (!rdap) return nobody('no register of networks is set (ZAFRA_RDAP)');
	try {
		const { status, body } = await fetchOutward(`${rdap.replace(/\/$/, '')}/ip/${address}`, outward, RDAP);
		if (status === 404) return nobody('the register does not know the address');
		const owner = status === 200 ? ownerFromRdap(JSON.parse(body.toString('utf8'))) : null;
		return owner ? { owner, ownerProblem: null } : nobody(`the register answered with status ${status}`);
	} catch (error) {
		return nobody(
			error instanceof OutwardFault ? 'the register did not answer' : 'the register’s answer cannot be read'
		);
	}
}
