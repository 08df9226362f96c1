/** What a release did to a metric of real visitors. */
import type { Verdict } from '../../trial/types';
import type { VisitKind } from '../tallies';

/** Of a 75th percentile, in the metric's unit. */
export interface ReleaseEffect {
	/** Where it comes from: days of own visits, or windows of 28 days. */
	by: 'days' | 'windows';
	/** Of the page before the release. */
	before: number;
	/** Change from `before`, drift taken off where there is a control. */
	estimate: number;
	low: number;
	high: number;
	level: number;
	/** Smallest change that matters. */
	margin: number;
	/** Change over the same time where nothing was released; null without a control. */
	drift: number | null;
	/** Days of visits, or windows, before and after. */
	observed: { before: number; after: number };
	/** `none` without a control, where other visitors came, and where it was moving before: nothing is said then. */
	verdict: Verdict;
	/** Shares of the kinds of visits on both sides; null where they are not known. */
	mix: VisitMix | null;
	/**
	 * How it was moving before the release; null where it was not, or that is not known. Clear from two standard errors
	 * on; one that is not may decide nevertheless, since the verdict would not stand with it.
	 */
	trend: { aWeek: number; isClear: boolean; decides: boolean } | null;
}

/** Not enough to say anything yet. */
export interface TooSoon {
	/** Days until there may be; null when more days do not help. */
	moreDays: number | null;
	/** Days hang together, so that too few of them are independent. */
	hangTogether?: boolean;
}

export interface VisitMix {
	/** Share of visits before and after, of kinds that either side has; largest first. */
	kinds: { kind: VisitKind; before: number; after: number }[];
	/** With the visits after the release weighted as those before came, the verdict is another. */
	decides: boolean;
}

export type EffectAnswer = { effect: ReleaseEffect } | { tooSoon: TooSoon };

/** Intervals of effects (house): at 95 %, 5.2 % of drifts alone were called effects in simulated worlds. */
export const LEVEL = 0.96;

/** Days with visits on both sides of a release, in whole weeks. */
export interface Sides {
	before: string[];
	after: string[];
	/** Days after the release so far, not cut to whole weeks. */
	daysAfter: number;
}
