/** Pictures without dimensions, where something moved when they came (HTML, aspect ratio of images). */
import { NO_COST, NO_EVIDENCE } from '../finding';
import { selectorResource } from '../inspection';
import type { FindingRule } from '../rule';

/** Of the page's shift (house). */
const LEAST_SHIFT = 0.01;
/** Something moves within this of a picture's last byte (house). */
const RIGHT_AFTER_MS = 150;

export const pictureWithoutRoom: FindingRule = ({ images, requests, record }) =>
	images
		.filter(({ roomReserved, naturalWidth }) => !roomReserved && naturalWidth > 0)
		.flatMap((image) => {
			const request = requests.find(({ url }) => url === image.url);
			if (!request?.endMs) return [];
			const moved = record.shifts.filter(
				({ atMs, recentInput }) => !recentInput && atMs >= request.endMs! && atMs - request.endMs! <= RIGHT_AFTER_MS
			);
			const shift = moved.reduce((sum, { value }) => sum + value, 0);
			if (shift < LEAST_SHIFT) return [];
			return [
				{
					rule: 'picture-without-room' as const,
					resource: selectorResource(image.selector),
					cost: { ...NO_COST, metric: 'cls' as const, delay: shift },
					evidence: { ...NO_EVIDENCE, request: request.id, selector: image.selector, atMs: moved[0]!.atMs },
					saving: null,
					limit: { most: LEAST_SHIFT, unit: 'unitless' as const },
					values: { shift, url: image.url }
				}
			];
		});
