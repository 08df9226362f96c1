/**
 * Pictures with more pixels than are shown: CSS size times the pixel ratio (CSS Images; HTML, srcset). Where the file
 * itself is known it is told with what is saved at the needed pixels, and only if something is.
 */
import { pixelExcess } from '../../load/requests/pictures';
import type { RequestRecord } from '../../load/record/record';
import { sentBytes, type BodyFacts } from '../bodyFacts';
import { bestFit, MOST_TIMES, timesOf } from '../encodedPictures';
import { NO_COST, NO_EVIDENCE } from '../finding';
import { addressResource, seenIn } from '../inspection';
import type { FindingRule } from '../rule';

export const pictureTooLarge: FindingRule = (inspection) => [...inMarkup(inspection), ...inStyle(inspection)];

/** Bytes that the best of what was encoded for the place saves; null where the file is not known. */
function savedBy(request: RequestRecord, facts: BodyFacts | null): number | null {
	if (!facts?.picture) return null;
	const best = bestFit(facts.picture);
	return best ? sentBytes(request) - best.bytes : 0;
}

/** A background, whose natural size only the file tells. */
const inStyle: FindingRule = ({ images, requests, factsOf, leastBytes, record }) => {
	const inImages = new Set(images.map(({ url }) => url));
	return requests.flatMap((request) => {
		const facts = factsOf(request);
		const times = facts?.picture && timesOf(facts.picture);
		if (!facts?.picture?.needed || !times || inImages.has(request.url) || times <= MOST_TIMES) return [];
		const saved = savedBy(request, facts)!;
		if (saved < leastBytes) return [];
		const { width, height, needed } = facts.picture;
		return [
			{
				rule: 'picture-too-large' as const,
				resource: addressResource(request.url),
				cost: {
					...NO_COST,
					bytes: request.wireBytes,
					metric: request.url === record.lcp?.url ? ('lcp' as const) : null
				},
				evidence: seenIn(request),
				saving: { bytes: saved },
				limit: { most: MOST_TIMES, unit: 'times' as const },
				values: { times, width, height, neededWidth: needed.width, neededHeight: needed.height }
			}
		];
	});
};

const inMarkup: FindingRule = ({ images, requests, pixelRatio, leastBytes, record, factsOf }) => {
	/** A picture that is shown twice is needed at its largest. */
	const shown = new Map<string, (typeof images)[number]>();
	for (const image of images) {
		const before = shown.get(image.url);
		if (!before || image.shownWidth * image.shownHeight > before.shownWidth * before.shownHeight)
			shown.set(image.url, image);
	}
	return [...shown.values()].flatMap((image) => {
		const request = requests.find(({ url }) => url === image.url);
		const times = pixelExcess(image, pixelRatio);
		if (!request || times === null || times <= MOST_TIMES || (request.wireBytes ?? 0) < leastBytes) return [];
		if (request.mimeType?.includes('svg')) return [];
		const saved = savedBy(request, factsOf(request));
		if (saved !== null && saved < leastBytes) return [];
		return [
			{
				rule: 'picture-too-large' as const,
				resource: addressResource(image.url),
				cost: {
					...NO_COST,
					bytes: request.wireBytes,
					metric: request.url === record.lcp?.url ? ('lcp' as const) : null
				},
				evidence: { ...NO_EVIDENCE, request: request.id, selector: image.selector, atMs: request.startMs },
				saving: saved === null ? null : { bytes: saved },
				limit: { most: MOST_TIMES, unit: 'times' as const },
				values: {
					times,
					width: image.naturalWidth,
					height: image.naturalHeight,
					neededWidth: Math.ceil(image.shownWidth * pixelRatio),
					neededHeight: Math.ceil(image.shownHeight * pixelRatio)
				}
			}
		];
	});
};
