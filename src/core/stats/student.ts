/** Student's t distribution: quantiles for intervals from few observations. */
import { normalQuantile } from './normal';

const STEPS = 60;

/**
 * The quantile of Student's t: by halving on its distribution function, which for whole degrees of freedom is a finite
 * sum (Abramowitz and Stegun, 26.7.3 and 26.7.4).
 * @param p probability, above 0 and below 1
 * @param freedom degrees of freedom, a whole number from 1
 * @throws RangeError outside of these
 */
export function studentQuantile(p: number, freedom: number): number {
	if (!(p > 0 && p < 1)) throw new RangeError(`A probability lies between 0 and 1, not at ${p}.`);
	if (!Number.isInteger(freedom) || freedom < 1)
		throw new RangeError(`Degrees of freedom are whole and at least 1, not ${freedom}.`);
	if (p < 0.5) return -studentQuantile(1 - p, freedom);
	let [low, high] = [0, Math.max(10, normalQuantile(p) * 2)];
	while (studentCdf(high, freedom) < p) high *= 2;
	for (let i = 0; i < STEPS; i++) {
		const middle = (low + high) / 2;
		if (studentCdf(middle, freedom) < p) low = middle;
		else high = middle;
	}
	return (low + high) / 2;
}

/** @param t at least 0 */
function studentCdf(t: number, freedom: number): number {
	const angle = Math.atan(t / Math.sqrt(freedom));
	const cos2 = Math.cos(angle) ** 2;
	const isOdd = freedom % 2 === 1;
	let term = isOdd ? Math.cos(angle) : 1;
	let sum = freedom === 1 ? 0 : term;
	for (let k = isOdd ? 3 : 2; k <= freedom - 2; k += 2) {
		term *= (cos2 * (k - 1)) / k;
		sum += term;
	}
	const share = isOdd ? (2 / Math.PI) * (angle + Math.sin(angle) * sum) : Math.sin(angle) * sum;
	return 0.5 + share / 2;
}
