/** Bodies of a page that has settled: facts about its text, and the files themselves where they are asked for. */
import { createHash } from 'node:crypto';
import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import type { CDPSession } from 'playwright-core';
import { MOST_KEPT_BYTES, MOST_KEPT_FILE_BYTES, type KeptFile } from '$core/load/record/bodies';
import type { UnusedBytes } from '$core/load/record/assemble';
import type { BodyFact } from '$core/load/record/record';
import type { NetworkCollector } from './network';

const squeeze = promisify(gzip);

/** Larger bodies are counted, not read. */
const LARGEST_BYTES = 2_000_000;
const ALL_TOGETHER_BYTES = 12_000_000;
const TEXT = /^(text\/|application\/(javascript|json|manifest\+json|xml|ld\+json)|image\/svg\+xml)/;
const KEPT_TYPES = new Set(['document', 'script', 'stylesheet', 'image', 'font', 'fetch', 'xhr']);

export interface ReadBodies {
	/** By request id. What cannot be read, or is no text, is left out. */
	facts: Map<string, BodyFact>;
	/** Empty unless they are asked for. */
	kept: { file: KeptFile; bytes: Buffer }[];
}

interface Reading {
	/** performance.now() after which no further body is read. */
	untilMoment: number;
	/** The files themselves too, with what of them was of no use. */
	keep: boolean;
	unused: UnusedBytes | null;
}

export async function readBodies(
	session: CDPSession,
	network: NetworkCollector,
	{ untilMoment, keep, unused }: Reading
): Promise<ReadBodies> {
	const read: ReadBodies = { facts: new Map(), kept: [] };
	let [textBytes, keptBytes] = [0, 0];
	for (const { id, url, type, mimeType, decodedBytes } of network.finished) {
		if (performance.now() > untilMoment) break;
		const media = mimeType ?? '';
		const wantsFacts =
			TEXT.test(media) &&
			decodedBytes > 0 &&
			decodedBytes <= LARGEST_BYTES &&
			textBytes + decodedBytes <= ALL_TOGETHER_BYTES;
		const wantsFile =
			keep &&
			KEPT_TYPES.has(type) &&
			decodedBytes <= MOST_KEPT_FILE_BYTES &&
			keptBytes + decodedBytes <= MOST_KEPT_BYTES;
		if (!wantsFacts && !wantsFile) continue;
		const answer = await session.send('Network.getResponseBody', { requestId: id }).catch(() => null);
		if (!answer) continue;
		const bytes = Buffer.from(answer.body, answer.base64Encoded ? 'base64' : 'utf8');
		if (wantsFacts) {
			textBytes += decodedBytes;
			read.facts.set(id, await factsOf(bytes));
		}
		if (wantsFile && bytes.length > 0) {
			keptBytes += bytes.length;
			const isCode = type === 'script' || type === 'stylesheet';
			const spans = (isCode && unused?.spans?.get(url)) || [];
			read.kept.push({ file: { request: id, url, type, media: media.slice(0, 100), unused: spans }, bytes });
		}
	}
	return read;
}

export async function factsOf(body: Buffer): Promise<BodyFact> {
	const hash = createHash('sha256').update(body).digest('hex').slice(0, 16);
	return { hash, bytes: body.length, gzipBytes: (await squeeze(body, { level: 6 })).length };
}
