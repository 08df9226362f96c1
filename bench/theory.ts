/** What the shaped line should do, by arithmetic. */
export const SEGMENT = 1460;

/**
 * First byte to last byte of bodies in slow start: windows of 10 x 1460 bytes a connection, doubled each round trip,
 * until the line is always full; the first byte arrives with its segment (RFC 6928). ms
 */
export function theoryTransfer(bytes: number, roundTripMs: number, downKbps: number, connections = 1): number {
	const rate = downKbps / 8;
	let window = 10 * SEGMENT * connections;
	let left = bytes;
	let time = 0;
	while (left > window && window / rate < roundTripMs) {
		left -= window;
		time += roundTripMs;
		window *= 2;
	}
	return time + left / rate - SEGMENT / rate;
}
