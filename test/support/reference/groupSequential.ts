/**
 * Critical values for looking at the data several times: equally spaced looks, two-sided, constant (Pocock) or falling
 * (O'Brien and Fleming) boundaries, by recursive numerical integration.
 *
 * Sources: Pocock 1977; O'Brien and Fleming 1979; Armitage, McPherson and Rowe 1969 for the recursion; tables 2.1 and
 * 2.3 of Jennison and Turnbull, "Group Sequential Methods", 2000, are what the tests hold it to.
 */
import { normalCdf, normalQuantile } from '$core/stats/normal';

/** Points of the integration: enough for four decimals of the constants. */
const STEPS = 64;

/** Chance that any of the standardised sums Z_1 .. Z_K leaves (-bounds[k], bounds[k]) under no shift. */
export function crossingChance(bounds: readonly number[]): number {
	// f(s) is the density of the sum S_k of k unit normals that has stayed inside at all looks so far.
	let inside = 1;
	let points: number[] = [0];
	let density: number[] = [1];
	bounds.forEach((bound, k) => {
		const edge = bound * Math.sqrt(k + 1);
		const width = (2 * edge) / STEPS;
		const next = Array.from({ length: STEPS + 1 }, (_, i) => -edge + i * width);
		// Simpson's weights over the points before; the first look starts from a single point.
		const h = points.length > 1 ? points[1]! - points[0]! : 1;
		const weighted = density.map((value, i) =>
			points.length > 1 ? (value * h * (i === 0 || i === points.length - 1 ? 1 : i % 2 ? 4 : 2)) / 3 : value
		);
		const into = next.map(
			(s) =>
				weighted.reduce((sum, weight, i) => sum + weight * Math.exp(-0.5 * (s - points[i]!) ** 2), 0) *
				0.3989422804014327
		);
		inside = weighted.reduce(
			(sum, weight, i) => sum + weight * (normalCdf(edge - points[i]!) - normalCdf(-edge - points[i]!)),
			0
		);
		points = next;
		density = into;
	});
	return 1 - inside;
}

/** The c for which boundaries of the given shape are crossed with chance alpha. */
function solve(looks: number, alpha: number, shape: (k: number) => number): number {
	if (!Number.isInteger(looks) || looks < 1 || looks > 20)
		throw new RangeError('Looks must be a whole number from 1 to 20.');
	let low = normalQuantile(1 - alpha / 2) * 0.9;
	let high = low + 4;
	for (let i = 0; i < 28; i++) {
		const c = (low + high) / 2;
		if (crossingChance(Array.from({ length: looks }, (_, k) => c * shape(k + 1))) > alpha) low = c;
		else high = c;
	}
	return (low + high) / 2;
}

const kept = new Map<string, number>();

/** Pocock's constant: |Z| beyond it at any of so many looks has chance alpha in all. */
export function pocockConstant(looks: number, alpha = 0.05): number {
	const key = `${looks}/${alpha}`;
	const existing = kept.get(key) ?? solve(looks, alpha, () => 1);
	kept.set(key, existing);
	return existing;
}

/** O'Brien and Fleming's constant: the bound at look k of K is C sqrt(K / k). */
export function obrienFlemingConstant(looks: number, alpha = 0.05): number {
	return solve(looks, alpha, (k) => Math.sqrt(looks / k));
}

/** The nominal two-sided level of each look under Pocock's boundary: 0.0158 for five looks at 0.05. */
export function pocockLevel(looks: number, alpha = 0.05): number {
	return looks === 1 ? alpha : 2 * (1 - normalCdf(pocockConstant(looks, alpha)));
}
