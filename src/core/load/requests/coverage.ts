/** How much of a script or a style sheet was of no use, from the ranges that the browser reports. */

/** Offsets in characters: [start, end). */
export interface CoverageRange {
	start: number;
	end: number;
	used: boolean;
}

/**
 * Characters of a script that never ran. Ranges nest: a function that was never called leaves its range unused, and a
 * range inside another overrules it. What no range covers counts as used.
 */
export function unusedInScript(ranges: readonly CoverageRange[]): number {
	// Outer ranges first; the innermost range over a place decides.
	const ordered = [...ranges].sort((a, b) => a.start - b.start || b.end - a.end);
	const open: CoverageRange[] = [];
	let unused = 0;
	let at = 0;
	const advance = (to: number) => {
		while (at < to) {
			while (open.length && open.at(-1)!.end <= at) open.pop();
			const inner = open.at(-1);
			const stop = Math.min(to, inner ? inner.end : to);
			if (inner && !inner.used) unused += stop - at;
			at = stop;
		}
	};
	for (const range of ordered) {
		advance(range.start);
		while (open.length && open.at(-1)!.end <= range.start) open.pop();
		open.push(range);
	}
	advance(Math.max(0, ...ordered.map((range) => range.end)));
	return unused;
}

/** Characters of a style sheet outside the rules that matched something. */
export function unusedInSheet(length: number, ranges: readonly CoverageRange[]): number {
	const used = ranges.filter((range) => range.used).sort((a, b) => a.start - b.start);
	let covered = 0;
	let reached = 0;
	for (const { start, end } of used) {
		covered += Math.max(0, end - Math.max(start, reached));
		reached = Math.max(reached, end);
	}
	return Math.max(0, length - covered);
}
