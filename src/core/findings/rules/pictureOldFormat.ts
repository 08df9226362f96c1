/** A picture that one of today's formats saves much of (AVIF, WebP specifications). */
import { inNewerFormat, isWorth, NEWER_SAVES, pictureFinding } from '../encodedPictures';
import type { FindingRule } from '../rule';

export const pictureOldFormat: FindingRule = ({ requests, factsOf, leastBytes }) =>
	requests.flatMap((request) => {
		const found = inNewerFormat(request, factsOf(request));
		if (!found || !isWorth(found, NEWER_SAVES, leastBytes)) return [];
		return [pictureFinding('picture-old-format', found)];
	});
