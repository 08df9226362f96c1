/** Where candidates stand on an axis of margins from the best: pure. */
import type { MarginInterval } from '$core/trial/judge/board';
import { placeOf, REACH } from './shiftBoardLayout';

/** Room to the left of the best, in margins, for intervals that reach beyond it. */
const LEFT = 4;

const cut = (margins: number): number => {
	const start = placeOf(-LEFT);
	return (placeOf(Math.max(-LEFT, margins)) - start) / (1 - start);
};

/** The margin about the best, and the best itself; shares of the axis. */
export const CANDIDATE_BAND = { from: cut(-1), to: cut(1), zero: cut(0) } as const;

export const percentOf = (share: number): string => `${(share * 100).toFixed(2)}%`;

export interface LaneMark {
	/** Of the diamond, 0 to 1. */
	at: number;
	bar: { from: number; to: number } | null;
	/** The interval goes on beyond the right end. */
	leaves: boolean;
}

/** The best itself stands at zero; null for what has no shift. */
export function candidateLane({
	fromBest,
	isBest
}: {
	fromBest: MarginInterval | null;
	isBest: boolean;
}): LaneMark | null {
	if (isBest) return { at: cut(0), bar: null, leaves: false };
	if (!fromBest) return null;
	const { estimate, low, high } = fromBest;
	const hasBar = low !== null && high !== null && low !== high;
	return {
		at: cut(estimate),
		bar: hasBar ? { from: cut(low), to: cut(high) } : null,
		leaves: (high ?? estimate) > REACH
	};
}
