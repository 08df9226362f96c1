/** Pictures with more pixels than are shown: CSS size times the pixel ratio (CSS Images; HTML, srcset). */
import { pixelExcess } from '../../load/requests/pictures';
import { NO_COST, NO_EVIDENCE } from '../finding';
import { addressResource } from '../inspection';
import type { FindingRule } from '../rule';

/** House. */
const MOST_TIMES = 1.5;

export const pictureTooLarge: FindingRule = ({ images, requests, pixelRatio, leastBytes, record }) => {
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
				saving: null,
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
