/** What somebody says of figures, held against the figures. */

export interface ClaimArithmetic {
	/** Change as a share of the figure before: -0.44 for 44 % less. */
	change: number;
	/** How many times the figure before the figure after is. */
	ratio: number;
	/** The claimed share agrees with the change, but for rounding to whole per cents; null where none was claimed. */
	agrees: boolean | null;
	/** What the claimed share is of, where it is not of the figure before; null where it is, or of nothing here. */
	base: 'after' | 'ratio' | null;
}

/** Rounding to whole per cents. */
const ROUNDING = 0.5;

/**
 * 3.9 s to 1.5 s is 62 % less. “160 % faster” is the difference as a share of the figure after; “260 %” is how many
 * times it is.
 * @throws RangeError for a figure before that is zero
 */
export function checkClaim({
	before,
	after,
	percent
}: {
	before: number;
	after: number;
	percent: number | null;
}): ClaimArithmetic {
	if (before === 0) throw new RangeError('The figure before is the base of a share and cannot be zero.');
	const change = (after - before) / before;
	const ratio = after / before;
	if (percent === null) return { change, ratio, agrees: null, base: null };
	const isNear = (share: number) => Math.abs(Math.abs(share * 100) - Math.abs(percent)) <= ROUNDING;
	const agrees = isNear(change);
	const ofAfter = after === 0 ? NaN : (after - before) / after;
	const times = after === 0 ? NaN : Math.max(ratio, 1 / ratio);
	return { change, ratio, agrees, base: agrees ? null : isNear(ofAfter) ? 'after' : isNear(times) ? 'ratio' : null };
}
