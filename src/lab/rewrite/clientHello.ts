/** The host that a browser asks for, in the first bytes of TLS (RFC 8446, section 4.1.2; RFC 6066, section 3). */

const HANDSHAKE = 22;
const CLIENT_HELLO = 1;
const SERVER_NAME = 0;
const RECORD_HEAD = 5;
/** Version, random. */
const FIXED = 2 + 32;

/** @returns `more` while bytes are missing; null for what names no host */
export function serverNameIn(bytes: Buffer): string | null | 'more' {
	if (bytes.length < RECORD_HEAD) return bytes.length && bytes[0] !== HANDSHAKE ? null : 'more';
	if (bytes[0] !== HANDSHAKE) return null;
	if (bytes.length < RECORD_HEAD + bytes.readUInt16BE(3)) return 'more';
	const body = bytes.subarray(RECORD_HEAD, RECORD_HEAD + bytes.readUInt16BE(3));
	try {
		return body[0] === CLIENT_HELLO ? nameIn(extensionsOf(body)) : null;
	} catch (error) {
		if (error instanceof RangeError) return null;
		throw error;
	}
}

function extensionsOf(body: Buffer): Buffer {
	let at = 4 + FIXED;
	// Session id, cipher suites, compression methods: each with its length before it.
	at += 1 + body.readUInt8(at);
	at += 2 + body.readUInt16BE(at);
	at += 1 + body.readUInt8(at);
	return body.subarray(at + 2, at + 2 + body.readUInt16BE(at));
}

function nameIn(extensions: Buffer): string | null {
	for (let at = 0; at + 4 <= extensions.length;) {
		const [kind, length] = [extensions.readUInt16BE(at), extensions.readUInt16BE(at + 2)];
		if (kind === SERVER_NAME) {
			// List length, kind of name, length of name.
			const size = extensions.readUInt16BE(at + 4 + 3);
			return extensions.subarray(at + 4 + 5, at + 4 + 5 + size).toString('latin1');
		}
		at += 4 + length;
	}
	return null;
}
