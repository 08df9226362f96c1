/** A full matrix runs in `npm run test:long`; `npm test` takes an even sample of it. */
export const IS_LONG = Boolean(process.env.ZAFRA_TEST_LONG);

/** @returns all in a long run; else every so many, the first and the last among them, so that there are `most` */
export function sampleOf<Item>(all: readonly Item[], most: number): Item[] {
	if (IS_LONG || all.length <= most) return [...all];
	return Array.from({ length: most }, (_, i) => all[Math.round((i * (all.length - 1)) / Math.max(1, most - 1))]!);
}
