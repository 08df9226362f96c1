/** The standard normal distribution. */

/**
 * Cumulative distribution, absolute error below 1e-15 for |z| < 6 or so.
 * Source: Marsaglia, "Evaluating the Normal Distribution", Journal of Statistical Software 11(4), 2004
 * (Taylor series around zero); beyond |z| = 6 the asymptotic continued fraction of the tail.
 */
export function normalCdf(z: number): number {
	if (Number.isNaN(z)) return NaN;
	if (z > 6 || z < -6) {
		const x = Math.abs(z);
		let fraction = x;
		for (let k = 60; k >= 1; k--) fraction = x + k / fraction;
		const tail = Math.exp(-x * x * 0.5 - 0.9189385332046728) / fraction;
		return z < 0 ? tail : 1 - tail;
	}
	let sum = z;
	let term = z;
	for (let k = 3; Math.abs(term) > 1e-17 * Math.abs(sum) && k < 400; k += 2) {
		term *= (z * z) / k;
		sum += term;
	}
	return 0.5 + sum * Math.exp(-0.5 * z * z - 0.9189385332046728);
}

/**
 * Quantile: the z with normalCdf(z) = p. Acklam's rational approximation (from memory) as the start, then two
 * Newton steps on normalCdf, which make the result as exact as normalCdf itself.
 * @throws RangeError for p outside 0 to 1
 */
export function normalQuantile(p: number): number {
	if (!(p >= 0 && p <= 1)) throw new RangeError('A probability lies between 0 and 1.');
	if (p === 0) return -Infinity;
	if (p === 1) return Infinity;
	if (p > 0.5) return -normalQuantile(1 - p);
	let z: number;
	if (p < 0.02425) {
		const q = Math.sqrt(-2 * Math.log(p));
		z =
			(((((-7.784894002430293e-3 * q - 0.3223964580411365) * q - 2.400758277161838) * q - 2.549732539343734) * q +
				4.374664141464968) *
				q +
				2.938163982698783) /
			((((7.784695709041462e-3 * q + 0.3224671290700398) * q + 2.445134137142996) * q + 3.754408661907416) * q + 1);
	} else {
		const q = p - 0.5;
		const r = q * q;
		z =
			((((((-39.69683028665376 * r + 220.9460984245205) * r - 275.9285104469687) * r + 138.357751867269) * r -
				30.66479806614716) *
				r +
				2.506628277459239) *
				q) /
			(((((-54.47609879822406 * r + 161.5858368580409) * r - 155.6989798598866) * r + 66.80131188771972) * r -
				13.28068155288572) *
				r +
				1);
	}
	for (let step = 0; step < 2; step++) {
		const density = Math.exp(-0.5 * z * z - 0.9189385332046728);
		if (density > 0) z -= (normalCdf(z) - p) / density;
	}
	return z;
}
