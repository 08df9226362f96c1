/** A client of SOCKS5 (RFC 1928), without a browser. */
import { connect, type Socket } from 'node:net';

/** CONNECT through a SOCKS5 proxy; the reply code and the open socket. */
export async function socks(port: number, host: string, hostPort: number): Promise<{ code: number; socket: Socket }> {
	const socket = connect(port, '127.0.0.1');
	const read = () => new Promise<Buffer>((resolve) => socket.once('data', resolve));
	socket.write(Buffer.from([5, 1, 0]));
	await read();
	const name = Buffer.from(host);
	socket.write(
		Buffer.concat([Buffer.from([5, 1, 0, 3, name.length]), name, Buffer.from([hostPort >> 8, hostPort & 255])])
	);
	return { code: (await read())[1]!, socket };
}

/** From the wish for a connection to the first byte of the answer, ms. */
export async function firstByteThrough(port: number, host: string): Promise<number> {
	const begun = performance.now();
	const { socket } = await socks(port, host, 80);
	socket.write(`GET / HTTP/1.1\r\nHost: ${host}\r\nConnection: close\r\n\r\n`);
	await new Promise((resolve) => socket.once('data', resolve));
	const took = performance.now() - begun;
	socket.destroy();
	return took;
}
