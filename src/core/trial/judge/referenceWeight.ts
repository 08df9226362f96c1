/** Whether a reference page is about as heavy as the page: drift in proportion and as an addition then look alike. */

/** Outside of half to twice its figure the two ideas of drift part, and the weaker verdict decides little (house). */
const LEAST = 0.5;
const MOST = 2;

/** @param page, reference middle figures of one metric, same unit */
export function isUnlike(page: number, reference: number): boolean {
	return page > 0 && (reference < LEAST * page || reference > MOST * page);
}
