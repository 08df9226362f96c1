/** Hosts that lie far away: connecting to them, and every byte, takes real time. */
import { createServer, Socket, type NetConnectOpts, type Server } from 'node:net';

/** Connects as `net.connect` does, each time later by so many ms: the handshake of a long way. */
export function lateConnect(nextMs: () => number): (to: NetConnectOpts) => Socket {
	return (to) => {
		const socket = new Socket();
		setTimeout(() => socket.connect(to), nextMs());
		return socket;
	};
}

/** Passes bytes to a port of this machine and back, each chunk half a round trip later. */
export function farRelay(port: number, roundTripMs: number): Promise<Server> {
	const later = (work: () => void) => void setTimeout(work, roundTripMs / 2);
	const server = createServer({ noDelay: true }, (near) => {
		const far = new Socket().connect({ port, host: '127.0.0.1', noDelay: true });
		for (const [from, to] of [
			[near, far],
			[far, near]
		] as const) {
			from.on('data', (chunk) => later(() => to.writable && to.write(chunk)));
			from.on('end', () => later(() => to.end()));
			from.on('error', () => to.destroy());
		}
	});
	return new Promise((resolve) => server.listen(0, '127.0.0.1', () => resolve(server)));
}
