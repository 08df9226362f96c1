/** Pictures below the first screen that were fetched before the largest paint (HTML, lazy loading). */
import { NO_COST, NO_EVIDENCE } from '../finding';
import { addressResource, endedBy } from '../inspection';
import type { FindingRule } from '../rule';

export const pictureEarly: FindingRule = ({ images, requests, record, leastBytes }) => {
	const inView = new Set(images.filter((image) => image.inView).map(({ url }) => url));
	return images
		.filter(
			({ lazy, url, shownWidth }, i) =>
				!lazy && shownWidth > 0 && !inView.has(url) && images.findIndex((image) => image.url === url) === i
		)
		.flatMap((image) => {
			const request = requests.find(({ url }) => url === image.url);
			if (!request || !endedBy(request, record.figures.lcp) || (request.wireBytes ?? 0) < leastBytes) return [];
			return [
				{
					rule: 'picture-early' as const,
					resource: addressResource(image.url),
					cost: { ...NO_COST, bytes: request.wireBytes },
					evidence: { ...NO_EVIDENCE, request: request.id, selector: image.selector, atMs: request.startMs },
					saving: null,
					limit: { most: 0, unit: 'count' as const },
					values: { bytes: request.wireBytes ?? 0 }
				}
			];
		});
};
