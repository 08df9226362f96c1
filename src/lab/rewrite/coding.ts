/** Content codings of bodies that are read and written anew (RFC 9110, section 8.4). */
import { promisify } from 'node:util';
import { brotliCompress, brotliDecompress, constants, gunzip, gzip, inflate } from 'node:zlib';

/** A body that unpacks to more is left as it is. */
const MOST_BYTES = 64_000_000;
const LIMITED = { maxOutputLength: MOST_BYTES };
const DECODERS: Readonly<Record<string, (body: Buffer) => Promise<Buffer>>> = {
	gzip: (body) => promisify(gunzip)(body, LIMITED) as Promise<Buffer>,
	'x-gzip': (body) => promisify(gunzip)(body, LIMITED) as Promise<Buffer>,
	deflate: (body) => promisify(inflate)(body, LIMITED) as Promise<Buffer>,
	br: (body) => promisify(brotliDecompress)(body, LIMITED) as Promise<Buffer>,
	identity: (body) => Promise.resolve(body)
};

/** @returns null for a coding that is not known, or a body that does not decode */
export async function decoded(body: Buffer, coding: string): Promise<Buffer | null> {
	const decode = DECODERS[coding.trim().toLowerCase() || 'identity'];
	return decode ? decode(body).catch(() => null) : null;
}

/** What servers use for answers that are made on the fly (practice). */
const ON_THE_FLY = { gzip: 6, br: 5 };
/** Packed once, at the best that there is. */
const AT_BEST = { gzip: 9, br: 11 };

/** @param isBest as a file is packed once; else as an answer on the fly */
export async function coded(body: Buffer, coding: string, isBest = false): Promise<Buffer> {
	const levels = isBest ? AT_BEST : ON_THE_FLY;
	if (coding === 'br')
		return promisify(brotliCompress)(body, {
			params: { [constants.BROTLI_PARAM_QUALITY]: levels.br, [constants.BROTLI_PARAM_SIZE_HINT]: body.length }
		});
	if (coding === 'gzip' || coding === 'x-gzip') return promisify(gzip)(body, { level: levels.gzip });
	return body;
}

/** The best that the browser takes. */
export function bestCoding(accepted: string | undefined): 'br' | 'gzip' | 'identity' {
	const names = (accepted ?? '').split(',').map((part) => part.split(';')[0]!.trim().toLowerCase());
	if (names.includes('br')) return 'br';
	return names.includes('gzip') ? 'gzip' : 'identity';
}
