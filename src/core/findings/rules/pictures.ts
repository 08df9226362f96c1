/** Pictures that could be smaller: really encoded anew, each told by one rule alone with all that it saves. */
import { group } from 'd3-array';
import type { RequestRecord } from '../../load/record/record';
import { sentBytes, type BodyFacts, type Encoded, type PictureFacts } from '../bodyFacts';
import { NO_COST } from '../finding';
import { addressResource, seenIn } from '../inspection';
import type { FindingRule } from '../rule';

/** More pixels than are shown (house). */
export const MOST_TIMES = 1.5;
/** A newer format is worth a line from so much on; the same format from so much (house). */
const NEWER_SAVES = 0.2;
const SAME_SAVES = 0.15;
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
function savingAt(
	request: RequestRecord,
	facts: BodyFacts | null,
	isWanted: (encoded: Encoded, picture: PictureFacts) => boolean
): Saving | null {
	const picture = facts?.picture;
	if (!picture || picture.isAnimated || (timesOf(picture) ?? 1) > MOST_TIMES) return null;
	const best = smallest(picture.encoded.filter((encoded) => isWanted(encoded, picture)));
	return best && { request, picture, best, saved: sentBytes(request) - best.bytes };
}

const inNewerFormat = (request: RequestRecord, facts: BodyFacts | null) =>
	savingAt(request, facts, ({ format }, picture) => NEWER.has(format) && !NEWER.has(picture.format));

const isWorth = ({ request, saved }: Saving, share: number, leastBytes: number) =>
	saved >= leastBytes && saved > sentBytes(request) * share;

export const pictureOldFormat: FindingRule = ({ requests, factsOf, leastBytes }) =>
	requests.flatMap((request) => {
		const found = inNewerFormat(request, factsOf(request));
		if (!found || !isWorth(found, NEWER_SAVES, leastBytes)) return [];
		return [findingOf('picture-old-format', found)];
	});

export const picturePoorlyPacked: FindingRule = ({ requests, factsOf, leastBytes }) =>
	requests.flatMap((request) => {
		const facts = factsOf(request);
		const found = savingAt(request, facts, ({ format }, picture) => format === picture.format);
		if (!found || !isWorth(found, SAME_SAVES, leastBytes)) return [];
		const newer = inNewerFormat(request, facts);
		// The same bytes are told once.
		return newer && isWorth(newer, NEWER_SAVES, leastBytes) ? [] : [findingOf('picture-poorly-packed', found)];
	});

function findingOf(rule: 'picture-old-format' | 'picture-poorly-packed', { request, picture, best, saved }: Saving) {
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

export const animationAsPicture: FindingRule = ({ requests, factsOf, leastBytes }) =>
	requests.flatMap((request) => {
		const picture = factsOf(request)?.picture;
		if (!picture?.isAnimated || picture.format !== 'gif' || sentBytes(request) < leastBytes) return [];
		return [
			{
				rule: 'animation-as-picture' as const,
				resource: addressResource(request.url),
				cost: { ...NO_COST, bytes: sentBytes(request) },
				evidence: seenIn(request),
				saving: null,
				limit: { most: 0, unit: 'count' as const },
				values: { bytes: sentBytes(request) }
			}
		];
	});

export const pictureSameTwice: FindingRule = ({ requests, factsOf, leastBytes }) => {
	const pictures = requests.flatMap((request) => {
		const facts = request.type === 'image' ? factsOf(request) : null;
		return facts ? [{ request, hash: facts.hash }] : [];
	});
	return [...group(pictures, ({ hash }) => hash).values()].flatMap((alike) => {
		const [first, ...others] = alike.filter(
			({ request }, i) => alike.findIndex((own) => own.request.url === request.url) === i
		);
		const bytes = others.reduce((sum, { request }) => sum + sentBytes(request), 0);
		if (!first || !others.length || bytes < leastBytes) return [];
		return [
			{
				rule: 'picture-same-twice' as const,
				resource: addressResource(others[0]!.request.url),
				cost: { ...NO_COST, bytes },
				evidence: seenIn(others[0]!.request),
				saving: { bytes },
				limit: { most: 0, unit: 'count' as const },
				values: { first: first.request.url, n: others.length + 1, bytes }
			}
		];
	});
};
