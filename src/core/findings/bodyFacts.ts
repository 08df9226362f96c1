/** What was worked out of a file itself: how small it could be, what of it is used. Exact in bytes; no time follows. */
import { headerOf } from '../load/requests/delivery';
import type { RequestRecord } from '../load/record/record';

/** Bytes of a text as it is, with gzip (level 9, RFC 1952) and with Brotli (quality 11, RFC 7932). */
export interface Packed {
	plain: number;
	gzip: number;
	brotli: number;
}

export type PictureFormat = 'jpeg' | 'png' | 'webp' | 'avif' | 'gif';

/** A picture encoded anew, as small as a likeness of `LEAST_LIKENESS` allows. */
export interface Encoded {
	format: PictureFormat;
	width: number;
	height: number;
	bytes: number;
}

export interface PictureFacts {
	format: PictureFormat;
	width: number;
	height: number;
	isAnimated: boolean;
	/** Device pixels that its largest place on any audited page shows of it; null where no place is known. */
	needed: { width: number; height: number } | null;
	/** At its own size, and at the needed one where that is smaller. Empty where nothing smaller is like it. */
	encoded: Encoded[];
}

export interface FontFacts {
	family: string;
	/** Some audited page draws a text with it. */
	isDrawn: boolean;
	/** Signs that the file has, and those of them that the audited pages draw. */
	signs: number;
	drawnSigns: number;
	/** All signs that are drawn lie in the private use areas (Unicode 23.5): pictures, not text. */
	isIcons: boolean;
	/** Bytes as WOFF2, whole and with the drawn signs alone; null where it could not be made. */
	woff2: number | null;
	subset: number | null;
}

export interface BodyFacts {
	/** Hex digits of its SHA-256: equal content has the same. */
	hash: string;
	bytes: number;
	packed: Packed | null;
	minified: Packed | null;
	/** Without what no audited page used. */
	cut: Packed | null;
	/** Names of known helpers for browsers of long ago. */
	helpers: string[];
	/** It ran a `document.write`, as far as coverage tells. */
	writesDocument: boolean;
	picture: PictureFacts | null;
	font: FontFacts | null;
	/** Why nothing could be worked out: a script that does not parse, a picture that cannot be decoded. */
	fault: string | null;
}

/** Of a file that nothing was worked out of. */
export const NO_BODY_FACTS: Omit<BodyFacts, 'hash' | 'bytes'> = {
	packed: null,
	minified: null,
	cut: null,
	helpers: [],
	writesDocument: false,
	picture: null,
	font: null,
	fault: null
};

/** Mean SSIM below which a picture is not told as alike (house; the design's line). */
export const LEAST_LIKENESS = 0.98;

/** What was sent as it would be sent in another form: in the coding that the host uses. */
export function packedAs(packed: Packed, coding: string | null): number {
	if (coding === null) return packed.plain;
	return coding === 'gzip' || coding === 'deflate' ? packed.gzip : packed.brotli;
}

/** Bytes of the body on the wire: as its header says, else with the response's headers. */
export function sentBytes(request: Pick<RequestRecord, 'responseHeaders' | 'wireBytes'>): number {
	const length = Number(headerOf(request, 'content-length') ?? NaN);
	const wire = request.wireBytes ?? 0;
	return length > 0 && length <= wire ? length : wire;
}
