/** A picture that the same format saves better, at equal likeness. */
import { inNewerFormat, isWorth, NEWER_SAVES, pictureFinding, SAME_SAVES, savingAt } from '../encodedPictures';
import type { FindingRule } from '../rule';

export const picturePoorlyPacked: FindingRule = ({ requests, factsOf, leastBytes }) =>
	requests.flatMap((request) => {
		const facts = factsOf(request);
		const found = savingAt(request, facts, ({ format }, picture) => format === picture.format);
		if (!found || !isWorth(found, SAME_SAVES, leastBytes)) return [];
		const newer = inNewerFormat(request, facts);
		// The same bytes are told once.
		return newer && isWorth(newer, NEWER_SAVES, leastBytes) ? [] : [pictureFinding('picture-poorly-packed', found)];
	});
