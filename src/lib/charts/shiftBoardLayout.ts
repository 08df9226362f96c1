/** Where marks of a shift board stand on its axis: pure. */
import type { BoardMark } from '$core/trial/judge/board';

/** The axis ends here, in margins. */
export const REACH = 20;
/** Share of the half axis that the margin takes; linear within it, logarithmic beyond. */
const BAND = 0.34;

/** A shift in margins as a place on the axis: 0 at the left end, 0.5 in the middle, 1 at the right end. */
export function placeOf(margins: number): number {
	const size = Math.min(Math.abs(margins), REACH);
	const share = size <= 1 ? size * BAND : BAND + (1 - BAND) * (Math.log(size) / Math.log(REACH));
	return 0.5 + (Math.sign(margins) * share) / 2;
}

export type MarkTone = 'better' | 'worse' | 'quiet' | 'open';

export interface PlacedMark {
	/** Of the diamond, 0 to 1. */
	at: number;
	/** Ends of the bar; null when there is none. */
	bar: { from: number; to: number } | null;
	/** The interval goes on beyond the axis. */
	leaves: { left: boolean; right: boolean };
	isSolid: boolean;
	isDotted: boolean;
	tone: MarkTone;
}

/** Null for what has no shift. */
export function placeMark({
	verdict,
	inMargins,
	isExact,
	isPutOff = false
}: Omit<BoardMark, 'metric'>): PlacedMark | null {
	if (!inMargins) return null;
	const { estimate, low, high } = inMargins;
	const isDecided = verdict === 'better' || verdict === 'worse';
	const hasBar = low !== null && high !== null && !isExact;
	return {
		at: placeOf(estimate),
		bar: hasBar ? { from: placeOf(low), to: placeOf(high) } : null,
		leaves: { left: (low ?? estimate) < -REACH, right: (high ?? estimate) > REACH },
		isSolid: isDecided && !isPutOff,
		isDotted: verdict === 'undecided' || verdict === 'none',
		tone: isDecided && !isPutOff ? verdict : verdict === 'undecided' || verdict === 'none' ? 'open' : 'quiet'
	};
}

/** Places of the ends of the margin. */
export const MARGIN_BAND = { from: placeOf(-1), to: placeOf(1) } as const;

/** Marks by how far they are to the worse, for sorting arms by a metric; what has no shift comes last. */
export function bySize(a: BoardMark | undefined, b: BoardMark | undefined): number {
	const size = (mark: BoardMark | undefined) => mark?.inMargins?.estimate ?? Infinity;
	return size(a) === size(b) ? 0 : size(a) - size(b);
}
