/** What becomes of one answer on its way: its body and its headers, as the rewrites say. */
import { createHash } from 'node:crypto';
import type { IncomingHttpHeaders } from 'node:http';
import type { Rewrite } from '$core/rewrites/rewrite';
import { editMarkup } from '$core/rewrites/markup';
import { editText } from '$core/rewrites/text';
import { isMatching } from '$core/load/requests/pattern';
import { subsetOf } from '../files/font';
import { madePicture } from '../files/picture';
import { minified } from '../files/text';
import { bestCoding, coded, decoded } from './coding';

export interface Answer {
	url: string;
	status: number;
	headers: IncomingHttpHeaders;
	body: Buffer;
}

export interface Changed extends Answer {
	/** How often each rewrite of the list was done. */
	applied: number[];
	/** What else had to be done for it, in words. */
	notes: string[];
}

const TEXT = /^(text\/|application\/(javascript|x-javascript|json|manifest\+json|xml|ld\+json)|image\/svg\+xml)/i;
const MARKUP = /^(text\/html|application\/xhtml\+xml)/i;

const mediaOf = ({ headers }: Pick<Answer, 'headers'>) => String(headers['content-type'] ?? '');
const isText = (answer: Pick<Answer, 'headers'>) => TEXT.test(mediaOf(answer));

/** Rewrites that may change the body of this answer: without one it goes through as it comes. */
export function bodyRewrites(rewrites: readonly Rewrite[], { url, headers }: Pick<Answer, 'url' | 'headers'>): boolean {
	const text = isText({ headers });
	const isMarkup = MARKUP.test(mediaOf({ headers }));
	return rewrites.some((rewrite) => {
		switch (rewrite.do) {
			case 'replace':
				return isMatching(url, rewrite.address);
			case 'text':
				return text && (isMatching(url, rewrite.address) || isMarkup);
			case 'compress':
				return text && (rewrite.address === undefined || isMatching(url, rewrite.address));
			case 'own-host':
				return text;
			case 'header':
				return false;
			default:
				return isMarkup;
		}
	});
}

/** Bodies that were made anew, by what they were made of: the second load waits for none. */
const made = new Map<string, Promise<Made | null>>();
const MOST_MADE = 400;

interface Made {
	body: Buffer;
	/** Null where it stays what it was. */
	media: string | null;
}

function once(key: string, make: () => Promise<Made | null>): Promise<Made | null> {
	const known = made.get(key);
	if (known) return known;
	if (made.size >= MOST_MADE) made.delete(made.keys().next().value!);
	const making = make();
	made.set(key, making);
	return making;
}

/** @param accepts the browser's `accept-encoding` */
export async function changed(
	answer: Answer,
	rewrites: readonly Rewrite[],
	accepts: string | undefined
): Promise<Changed> {
	const coding = String(answer.headers['content-encoding'] ?? '');
	const plain = await decoded(answer.body, coding);
	if (!plain) {
		const notes = [`${answer.url} does not decode as ${coding || 'plain'}: it was left as it is.`];
		return { ...answer, applied: rewrites.map(() => 0), notes };
	}
	const applied = rewrites.map(() => 0);
	const notes: string[] = [];
	const headers = { ...answer.headers };
	let body = plain;
	for (const [i, rewrite] of rewrites.entries()) {
		if (rewrite.do !== 'replace' || !isMatching(answer.url, rewrite.address)) continue;
		const replaced = await replacedBody(body, rewrite, answer);
		if (!replaced) {
			notes.push(`${answer.url} could not be replaced: it was left as it is.`);
			continue;
		}
		body = replaced.body;
		if (replaced.media) headers['content-type'] = replaced.media;
		applied[i] = 1;
	}
	if (isText(answer)) {
		const edited = editedText(body, answer, rewrites);
		body = edited.body;
		edited.applied.forEach((n, i) => (applied[i]! += n));
		if (edited.hasScript && dropPolicy(headers))
			notes.push('The page’s content security policy was left out, so that what is held can be put in again.');
	}
	const at = rewrites.findIndex(
		(rewrite) =>
			rewrite.do === 'compress' &&
			isText(answer) &&
			(rewrite.address === undefined || isMatching(answer.url, rewrite.address))
	);
	const best = at < 0 ? coding : bestCoding(accepts);
	if (at >= 0 && best !== coding) applied[at] = 1;
	// As the host sent it, to the byte.
	if (body === plain && best === coding) return { ...answer, headers, applied, notes };
	const isBest = at >= 0 && !MARKUP.test(mediaOf(answer));
	const packed = await once(`${best}/${isBest}/${sumOf(body)}`, async () => ({
		body: await coded(body, best, isBest),
		media: null
	}));
	if (best && best !== 'identity') headers['content-encoding'] = best;
	else delete headers['content-encoding'];
	if (body !== plain) delete headers['etag'];
	headers['content-length'] = String(packed!.body.length);
	return { ...answer, headers, body: packed!.body, applied, notes };
}

const sumOf = (body: Buffer) => createHash('sha256').update(body).digest('hex');

type Replace = Extract<Rewrite, { do: 'replace' }>;

function replacedBody(body: Buffer, rewrite: Replace, { url }: Answer): Promise<Made | null> {
	return once(`${JSON.stringify(rewrite)}/${url}/${sumOf(body)}`, async () => {
		if (rewrite.with === 'picture') {
			const picture = await madePicture(body, rewrite);
			return picture && { body: picture.bytes, media: picture.media };
		}
		if (rewrite.with === 'font') {
			const font = await subsetOf(body, rewrite.signs ?? '');
			return font && { body: font, media: 'font/woff2' };
		}
		// Script that does not parse stays as it is.
		const text = await minified(rewrite.with, body.toString()).catch(() => null);
		return text === null ? null : { body: Buffer.from(text), media: null };
	});
}

function editedText(body: Buffer, { url, headers }: Answer, rewrites: readonly Rewrite[]) {
	const text = editText(body.toString(), url, rewrites);
	if (!MARKUP.test(mediaOf({ headers }))) {
		const isSame = text.applied.every((n) => n === 0);
		return { body: isSame ? body : Buffer.from(text.text), applied: text.applied, hasScript: false };
	}
	const { markup, applied, hasScript } = editMarkup(text.text, url, rewrites);
	const all = applied.map((n, i) => n + text.applied[i]!);
	return { body: all.every((n) => n === 0) ? body : Buffer.from(markup), applied: all, hasScript };
}

/** @returns whether there was one */
function dropPolicy(headers: IncomingHttpHeaders): boolean {
	const had = headers['content-security-policy'] !== undefined;
	delete headers['content-security-policy'];
	return had;
}

/** Headers of an answer whose body is left alone. @returns how often each rewrite of the list was done */
export function changeHeaders(headers: IncomingHttpHeaders, url: string, rewrites: readonly Rewrite[]): number[] {
	return rewrites.map((rewrite) => {
		if (rewrite.do !== 'header' || !isMatching(url, rewrite.address)) return 0;
		if (rewrite.value === null) delete headers[rewrite.name];
		else headers[rewrite.name] = rewrite.value;
		return 1;
	});
}
