/** What the rules of pictures share: files really encoded anew, each told by one rule alone with all that it saves. */
import type { RequestRecord } from '../load/record/record';
import { sentBytes, type BodyFacts, type Encoded, type PictureFacts } from './bodyFacts';
import { NO_COST } from './finding';
import { addressResource, seenIn } from './inspection';

/** More pixels than are shown (house). */
export const MOST_TIMES = 1.5;
/** A newer format is worth a line from so much on; the same format from so much (house). */
export const NEWER_SAVES = 0.2;
export const SAME_SAVES = 0.15;
const NEWER = new Set(['webp', 'avif']);

/** How many times the pixels of its largest place the file has; null where no place is known. */
export const timesOf = ({ width, height, needed }: PictureFacts): number | null =>
	needed && needed.width * needed.height > 0 ? (width * height) / (needed.width * needed.height) : null;

const smallest = (encoded: readonly Encoded[]): Encoded | null =>
	encoded.length ? encoded.reduce((a, b) => (b.bytes < a.bytes ? b : a)) : null;

/** The smallest of all that fit the place. */
export const bestFit = ({ encoded }: PictureFacts): Encoded | null => smallest(encoded);

interface Saving {
	request: RequestRecord;
	picture: PictureFacts;
	best: Encoded;
	saved: number;
}

/** At its own size, in formats that `isWanted` names; nothing for one that has far too many pixels. */
export function savingAt(
	request: RequestRecord,
	facts: BodyFacts | null,
	isWanted: (encoded: Encoded, picture: PictureFacts) => boolean
): Saving | null {
	const picture = facts?.picture;
	if (!picture || picture.isAnimated || (timesOf(picture) ?? 1) > MOST_TIMES) return null;
	const best = smallest(picture.encoded.filter((encoded) => isWanted(encoded, picture)));
	return best && { request, picture, best, saved: sentBytes(request) - best.bytes };
}

export const inNewerFormat = (request: RequestRecord, facts: BodyFacts | null) =>
	savingAt(request, facts, ({ format }, picture) => NEWER.has(format) && !NEWER.has(picture.format));

export const isWorth = ({ request, saved }: Saving, share: number, leastBytes: number) =>
	saved >= leastBytes && saved > sentBytes(request) * share;

export function pictureFinding(
	rule: 'picture-old-format' | 'picture-poorly-packed',
	{ request, picture, best, saved }: Saving
) {
	const bytes = sentBytes(request);
	return {
		rule,
		resource: addressResource(request.url),
		cost: { ...NO_COST, bytes: saved },
		evidence: seenIn(request),
		saving: { bytes: saved },
		limit: { most: 0, unit: 'count' as const },
		values: { bytes, saved, format: picture.format.toUpperCase(), best: best.format.toUpperCase(), left: best.bytes }
	};
}
