/** Facts about the text bodies of a page, taken after it has settled; the bodies themselves are not kept. */
import { createHash } from 'node:crypto';
import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import type { CDPSession } from 'playwright-core';
import type { BodyFact } from '$core/load/record/record';
import type { NetworkCollector } from './network';

const squeeze = promisify(gzip);

/** Larger bodies are counted, not read. */
const LARGEST_BYTES = 2_000_000;
const ALL_TOGETHER_BYTES = 12_000_000;
const TEXT = /^(text\/|application\/(javascript|json|manifest\+json|xml|ld\+json)|image\/svg\+xml)/;

/** Facts by request id. What cannot be read, or is no text, is left out. */
export async function readBodies(
	session: CDPSession,
	network: NetworkCollector,
	untilMoment: number
): Promise<Map<string, BodyFact>> {
	const facts = new Map<string, BodyFact>();
	let total = 0;
	for (const { id, mimeType, decodedBytes } of network.finished) {
		if (!TEXT.test(mimeType ?? '') || decodedBytes === 0 || decodedBytes > LARGEST_BYTES) continue;
		if (total + decodedBytes > ALL_TOGETHER_BYTES || performance.now() > untilMoment) break;
		total += decodedBytes;
		const answer = await session.send('Network.getResponseBody', { requestId: id }).catch(() => null);
		if (answer) facts.set(id, await factsOf(Buffer.from(answer.body, answer.base64Encoded ? 'base64' : 'utf8')));
	}
	return facts;
}

export async function factsOf(body: Buffer): Promise<BodyFact> {
	const hash = createHash('sha256').update(body).digest('hex').slice(0, 16);
	return { hash, bytes: body.length, gzipBytes: (await squeeze(body, { level: 6 })).length };
}
