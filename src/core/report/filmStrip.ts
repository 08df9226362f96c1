/** Which frames of a report's films stand in which column. */

/** Columns of a strip: on paper more are too small to read. */
const MOST_COLUMNS = 6;
const STEPS_MS = [100, 200, 250, 500, 1000, 2000, 5000, 10_000];
const LONGEST_STEP_MS = 20_000;

interface Filmed {
	load: number;
	frames: readonly { atMs: number }[];
	lcpMs: number | null;
}

/** Equal steps from zero until the slowest looks finished. @returns ms */
export function columnsOfFilms(films: readonly Filmed[]): number[] {
	const end = Math.max(...films.map(({ frames, lcpMs }) => Math.max(frames.at(-1)?.atMs ?? 0, lcpMs ?? 0)));
	const step = STEPS_MS.find((size) => end / size <= MOST_COLUMNS - 1) ?? LONGEST_STEP_MS;
	return Array.from({ length: Math.min(MOST_COLUMNS, Math.ceil(end / step) + 1) }, (_, i) => i * step);
}

/** Key of the picture that a film shows at a moment. */
export function frameKey({ load, frames }: Filmed, atMs: number): string {
	return `frame/${load}/${Math.max(
		0,
		frames.findLastIndex((frame) => frame.atMs <= atMs)
	)}`;
}
