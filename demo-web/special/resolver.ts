/** A stand-in resolver for the hosts of the simulated web, and a register that says whose networks they stand in. */
import { createSocket, type Socket } from 'node:dgram';
import { setTimeout as pause } from 'node:timers/promises';
import packet from 'dns-packet';
import { hostTimes } from '../hosts';
import type { Answer, Ask } from '../world';

/** Networks for documentation (RFC 5737): nobody stands there. */
const NETWORKS = [
	{ prefix: '192.0.2.', name: 'TIDEWATER-RACKS', holder: 'Tidewater Racks', country: 'GB' },
	{ prefix: '198.51.100.', name: 'LANTERN-EDGE', holder: 'Lantern Edge', country: 'NL' },
	{ prefix: '203.0.113.', name: 'OLD-MILL-HOSTING', holder: 'Old Mill Hosting', country: 'GB' }
];
const USUAL_MS = 18;
/** What is known is answered so soon. */
const KNOWN_MS = 1;
const TTL_S = 300;

/** The same address for a host always. */
export function addressOf(host: string): string {
	const sum = [...host].reduce((total, sign) => (total * 31 + sign.charCodeAt(0)) % 9973, 7);
	const { prefix } = host.startsWith('cdn.') ? NETWORKS[1]! : NETWORKS[sum % 2 ? 2 : 0]!;
	return `${prefix}${1 + (sum % 250)}`;
}

const coldMsOf = (host: string): number => hostTimes().find(({ pattern }) => pattern === host)?.dnsMs ?? USUAL_MS;

export async function startResolver(port: number): Promise<{ port: number; close(): void }> {
	const socket: Socket = createSocket('udp4');
	const known = new Set<string>();
	socket.on('message', (message, { address, port: from }) => {
		void answerOf(message, known).then((answer) => answer && socket.send(answer, from, address));
	});
	await new Promise<void>((ready, fail) => {
		socket.once('error', fail);
		socket.bind(port, '127.0.0.1', ready);
	});
	socket.on('error', () => undefined);
	return { port: socket.address().port, close: () => socket.close() };
}

async function answerOf(message: Buffer, known: Set<string>): Promise<Buffer | null> {
	let query: packet.Packet;
	try {
		query = packet.decode(message);
	} catch {
		return null;
	}
	const [question] = query.questions ?? [];
	if (!question) return null;
	const host = question.name.toLowerCase();
	await pause(known.has(host) ? KNOWN_MS : coldMsOf(host));
	known.add(host);
	const isKnown = host.endsWith('.test');
	const answers: packet.Answer[] =
		isKnown && question.type === 'A' ? [{ type: 'A', name: question.name, ttl: TTL_S, data: addressOf(host) }] : [];
	const NOT_FOUND = 3;
	return packet.encode({
		type: 'response',
		id: query.id ?? 0,
		flags: packet.RECURSION_DESIRED | packet.RECURSION_AVAILABLE | (isKnown ? 0 : NOT_FOUND),
		questions: query.questions ?? [],
		answers
	});
}

/** As the Registration Data Access Protocol answers (RFC 9083). */
export function answerRegister({ path }: Ask): Answer | null {
	const [, address] = /^\/rdap\/ip\/([0-9.]+)$/.exec(path) ?? [];
	const network = NETWORKS.find(({ prefix }) => address?.startsWith(prefix));
	if (!network) return null;
	const { prefix, name, holder, country } = network;
	const body = JSON.stringify({
		objectClassName: 'ip network',
		handle: `${prefix}0/24`,
		startAddress: `${prefix}0`,
		endAddress: `${prefix}255`,
		name,
		country,
		entities: [
			{ objectClassName: 'entity', roles: ['registrant'], vcardArray: ['vcard', [['fn', {}, 'text', holder]]] }
		]
	});
	return { type: 'application/rdap+json', body };
}
