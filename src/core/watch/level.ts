/**
 * The level of a figure on one side of a step, from readings that differ by their loads, by their own day, and by what
 * an update of the lab did to them.
 *
 * Each reading is the level plus an error of its own (random effects, Cochran 1937). Over an update the level may move
 * by an amount that nobody knows beyond what the control page tells of it: a random walk with a step at each update.
 * Both are carried exactly by going from reading to reading (Kalman 1960): the level's variance grows at an update and
 * shrinks at a reading.
 */
export interface Point {
	value: number;
	/** Of the value about its level: by loads, by the reading itself, by what was taken off. */
	variance: number;
	/** Variance of what the lab did to the level since the reading before; 0 without an update. */
	moved: number;
}

export interface Level {
	value: number;
	variance: number;
}

/** The level at the newest of some readings, oldest first; null without one. */
export function levelAtEnd(points: readonly Point[]): Level | null {
	let level: Level | null = null;
	for (const point of points) level = seen(level && { ...level, variance: level.variance + point.moved }, point);
	return level;
}

/** The level at the oldest of some readings; what the lab did before that one is not part of it. */
export function levelAtStart(points: readonly Point[]): Level | null {
	let level: Level | null = null;
	for (let i = points.length - 1; i >= 0; i--)
		level = seen(level && { ...level, variance: level.variance + points[i + 1]!.moved }, points[i]!);
	return level;
}

function seen(level: Level | null, { value, variance }: Point): Level {
	if (!level) return { value, variance };
	const sum = level.variance + variance;
	// Neither is uncertain: figures that never scatter. The older ones outvote no newer one.
	if (sum === 0) return { value: (level.value + value) / 2, variance: 0 };
	const trust = level.variance / sum;
	return { value: level.value + trust * (value - level.value), variance: trust * variance };
}
