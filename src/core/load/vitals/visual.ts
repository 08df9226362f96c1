/**
 * Visual progress and what follows from it, from the frames of a screencast. Times in ms since the navigation began.
 */

/** Counts per colour level, three channels of 256 after one another: 768 whole numbers. */
export type ColourHistogram = Uint32Array;

/**
 * Colour histogram of raw pixels.
 * @param pixels rows of RGB or RGBA bytes @param channels 3 or 4
 */
export function colourHistogram(pixels: Uint8Array, channels: 3 | 4): ColourHistogram {
	const histogram = new Uint32Array(768);
	for (let i = 0; i + 2 < pixels.length; i += channels) {
		histogram[pixels[i]!]!++;
		histogram[256 + pixels[i + 1]!]!++;
		histogram[512 + pixels[i + 2]!]!++;
	}
	return histogram;
}

/** Sum of absolute differences between two histograms. */
export function histogramDistance(a: ColourHistogram, b: ColourHistogram): number {
	let sum = 0;
	for (let i = 0; i < a.length; i++) sum += Math.abs(a[i]! - b[i]!);
	return sum;
}

/**
 * Visual progress of each frame: 1 minus its distance to the last frame as a share of the first frame's distance.
 * A page whose first and last frame are alike has been complete all the time.
 */
export function visualProgress(histograms: readonly ColourHistogram[]): number[] {
	const first = histograms[0];
	const last = histograms.at(-1);
	if (!first || !last) return [];
	const whole = histogramDistance(first, last);
	return histograms.map((histogram) =>
		whole === 0 ? 1 : Math.min(1, Math.max(0, 1 - histogramDistance(histogram, last) / whole))
	);
}

export interface ProgressPoint {
	atMs: number;
	/** 0 to 1. */
	progress: number;
}

/**
 * Speed Index in ms: the integral of (1 - visual progress) over time, from the start of the navigation to the last
 * frame; before the first point nothing is painted. Published definition, from memory.
 */
export function speedIndex(points: readonly ProgressPoint[]): number | null {
	if (points.length === 0) return null;
	let sum = 0;
	let at = 0;
	let missing = 1;
	for (const point of points) {
		sum += missing * (point.atMs - at);
		at = point.atMs;
		missing = 1 - point.progress;
	}
	return sum;
}

/** Visually complete: the first frame from which progress stays at `level` or more. Practice. */
export function visuallyComplete(points: readonly ProgressPoint[], level = 0.99): number | null {
	let at: number | null = null;
	for (const point of points) {
		if (point.progress < level) at = null;
		else at ??= point.atMs;
	}
	return at;
}

/**
 * Which frame shows what was painted at a moment: the one nearest in time. The browser dates a paint and the frame that
 * holds it some ms apart, in either order; a frame long before or after holds something else.
 * @returns index from 0; -1 without frames
 */
export function frameShowing(frames: readonly { atMs: number }[], atMs: number): number {
	let nearest = -1;
	frames.forEach((frame, i) => {
		if (nearest < 0 || Math.abs(frame.atMs - atMs) < Math.abs(frames[nearest]!.atMs - atMs)) nearest = i;
	});
	return nearest;
}
