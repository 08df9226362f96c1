/** How much of a script or a style sheet was of no use, from the ranges that the browser reports. */

/** Offsets in characters: [start, end). */
export interface CoverageRange {
	start: number;
	end: number;
	used: boolean;
}

/** [from, to), in order and apart. */
export type Span = [from: number, to: number];

const lengthOf = (spans: readonly Span[]) => spans.reduce((sum, [from, to]) => sum + to - from, 0);

/** Characters of a script that never ran. */
export const unusedInScript = (ranges: readonly CoverageRange[]): number => lengthOf(unusedSpansOfScript(ranges));

/** Characters of a style sheet outside the rules that matched something. */
export const unusedInSheet = (length: number, ranges: readonly CoverageRange[]): number =>
	lengthOf(unusedSpansOfSheet(length, ranges));

/**
 * What of a script never ran. Ranges nest: a function that was never called leaves its range unused, and a range inside
 * another overrules it. What no range covers counts as used.
 */
export function unusedSpansOfScript(ranges: readonly CoverageRange[]): Span[] {
	// Outer ranges first; the innermost range over a place decides.
	const ordered = [...ranges].sort((a, b) => a.start - b.start || b.end - a.end);
	const open: CoverageRange[] = [];
	const unused: Span[] = [];
	let at = 0;
	const advance = (to: number) => {
		while (at < to) {
			while (open.length && open.at(-1)!.end <= at) open.pop();
			const inner = open.at(-1);
			const stop = Math.min(to, inner ? inner.end : to);
			if (inner && !inner.used) addSpan(unused, at, stop);
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

/** What of a style sheet lies outside the rules that matched something. */
export function unusedSpansOfSheet(length: number, ranges: readonly CoverageRange[]): Span[] {
	const used = ranges.filter((range) => range.used).sort((a, b) => a.start - b.start);
	const unused: Span[] = [];
	let reached = 0;
	for (const { start, end } of used) {
		addSpan(unused, reached, Math.min(start, length));
		reached = Math.max(reached, end);
	}
	addSpan(unused, reached, length);
	return unused;
}

/** What touches the one before lengthens it; nothing where there is nothing between. */
function addSpan(spans: Span[], from: number, to: number): void {
	if (to <= from) return;
	const last = spans.at(-1);
	if (last && last[1] >= from) last[1] = Math.max(last[1], to);
	else spans.push([from, to]);
}

/** What lies in all of some lists of spans: of no use anywhere. */
export function sharedSpans(lists: readonly (readonly Span[])[]): Span[] {
	const [first = [], ...others] = lists;
	return others.reduce<Span[]>(
		(shared, spans) =>
			shared.flatMap(([from, to]) =>
				spans.flatMap(([start, end]): Span[] => {
					const [a, b] = [Math.max(from, start), Math.min(to, end)];
					return a < b ? [[a, b]] : [];
				})
			),
		first.map(([from, to]) => [from, to])
	);
}
