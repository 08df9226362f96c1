/**
 * BCa bootstrap intervals (bias-corrected and accelerated).
 * Source: Efron and Tibshirani, "An Introduction to the Bootstrap", 1993, chapter 14.
 */
import { ascending, mean, quantileSorted } from './summary';
import { normalCdf, normalQuantile } from './normal';
import { seededRandom } from './random';
import type { Estimate } from './estimate';

export const RESAMPLES = 4000;

/**
 * Interval of a statistic of several independent samples, each resampled on its own.
 * @param samples the samples, each with at least two values
 * @param statistic from samples of the same sizes to one number
 * @param options.alpha 1 minus the confidence level; options.seed makes the resamples repeatable
 * @throws RangeError for a sample of fewer than two values
 */
export function bcaInterval(
	samples: readonly (readonly number[])[],
	statistic: (samples: readonly (readonly number[])[]) => number,
	options: { alpha?: number; seed: number; resamples?: number }
): Estimate {
	const { alpha = 0.05, seed, resamples = RESAMPLES } = options;
	if (samples.some((sample) => sample.length < 2))
		throw new RangeError('A bootstrap needs at least two values in every sample.');
	const random = seededRandom(seed);
	const estimate = statistic(samples);
	const replicates = ascending(
		Array.from({ length: resamples }, () =>
			statistic(samples.map((sample) => sample.map(() => sample[Math.floor(random() * sample.length)]!)))
		)
	);
	const below = replicates.filter((value) => value < estimate).length;
	const equal = replicates.filter((value) => value === estimate).length;
	const share = Math.min(1 - 0.5 / resamples, Math.max(0.5 / resamples, (below + equal / 2) / resamples));
	const bias = normalQuantile(share);
	const acceleration = jackknifeAcceleration(samples, statistic);
	const corrected = (z: number) => normalCdf(bias + (bias + z) / (1 - acceleration * (bias + z)));
	const end = (p: number) => quantileSorted(replicates, corrected(normalQuantile(p)));
	return {
		estimate,
		low: end(alpha / 2),
		high: end(1 - alpha / 2),
		p: bootstrapP(replicates, bias, acceleration),
		n: samples.reduce((sum, sample) => sum + sample.length, 0)
	};
}

/** Acceleration from leaving out each value of each sample once. */
function jackknifeAcceleration(
	samples: readonly (readonly number[])[],
	statistic: (samples: readonly (readonly number[])[]) => number
): number {
	let cubes = 0;
	let squares = 0;
	samples.forEach((sample, which) => {
		const left = sample.map((_, i) => {
			const shorter = samples.map((other, k) => (k === which ? other.filter((_, j) => j !== i) : other));
			return statistic(shorter);
		});
		const centre = mean(left);
		// Influence values of a sample are (n - 1) (centre - left); the factors keep samples of other sizes comparable.
		for (const value of left) {
			const influence = ((sample.length - 1) * (centre - value)) / sample.length;
			cubes += influence ** 3;
			squares += influence ** 2;
		}
	});
	return squares === 0 ? 0 : cubes / (6 * squares ** 1.5);
}

/** The smallest two-sided level whose interval would just touch zero. */
function bootstrapP(replicates: readonly number[], bias: number, acceleration: number): number {
	const below = replicates.filter((value) => value < 0).length + replicates.filter((value) => value === 0).length / 2;
	const share = Math.min(1 - 0.5 / replicates.length, Math.max(0.5 / replicates.length, below / replicates.length));
	// Inverse of the correction: with w = bias + (bias + z) / (1 - a (bias + z)), solve for z.
	const w = normalQuantile(share) - bias;
	const z = w / (1 + acceleration * w) - bias;
	return Math.min(1, 2 * normalCdf(-Math.abs(z)));
}
