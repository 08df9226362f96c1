/** The frames of one load that stand for an arm. */
export interface Film {
	arm: number;
	/** The load whose LCP is nearest to the arm's median. */
	load: number;
	frames: { atMs: number; progress: number }[];
	lcpMs: number | null;
	shiftsMs: number[];
	/** CSS pixels of the viewport. */
	width: number;
	height: number;
}

/** From here on a page looks finished, as for "visually complete". */
const FINISHED = 0.99;

export type MomentKind = 'first-paint' | 'first-finished' | 'all-finished';

export interface Moment {
	kind: MomentKind;
	atMs: number;
	/** Films whose frame this moment is: the quickest or slowest one. */
	arm: number;
}

/**
 * Three moments at which all films are looked at together: something is painted in the quickest, the quickest is
 * finished, all are finished. Moments that fall together are one.
 * @returns empty without frames
 */
export function sharedMoments(films: readonly Film[]): Moment[] {
	const shown = films.filter((film) => film.frames.length > 0);
	if (!shown.length) return [];
	const paints = shown.map((film) => ({ arm: film.arm, atMs: firstPaintMs(film) })).sort((a, b) => a.atMs - b.atMs);
	const ends = shown.map((film) => ({ arm: film.arm, atMs: finishedMs(film) })).sort((a, b) => a.atMs - b.atMs);
	const moments: Moment[] = [
		{ kind: 'first-paint', ...paints[0]! },
		{ kind: 'first-finished', ...ends[0]! },
		{ kind: 'all-finished', ...ends.at(-1)! }
	];
	return moments.filter((moment, i) => i === 0 || moment.atMs > moments[i - 1]!.atMs);
}

/** Number of the frame that shows at a moment, from 0. */
export function frameAt({ frames }: Pick<Film, 'frames'>, atMs: number): number {
	const index = frames.findLastIndex((frame) => frame.atMs <= atMs);
	return Math.max(0, index);
}

/** The first frame is the blank page. */
function firstPaintMs({ frames }: Film): number {
	return (frames[1] ?? frames[0]!).atMs;
}

function finishedMs({ frames }: Film): number {
	const unfinished = frames.findLastIndex((frame) => frame.progress < FINISHED);
	return (frames[unfinished + 1] ?? frames.at(-1)!).atMs;
}
