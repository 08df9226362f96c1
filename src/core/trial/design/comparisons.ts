/** What a trial compares with what. */
import { asksForBest, hasPages } from './kinds';
import type { TrialArm, TrialDesign } from '../types';

/** Arm id of all pages of a sweep together. */
export const ALL_PAGES = 0;

export interface Comparison {
	baseline: TrialArm;
	arm: TrialArm;
}

/**
 * Every arm with the baseline; in a sweep each page's arm with that page's own; in stages each with the first.
 * @throws RangeError when an arm has nothing to be compared with
 */
export function comparisonsOf(design: Pick<TrialDesign, 'kind' | 'arms'>): Comparison[] {
	const compared = design.arms.filter((arm) => !arm.reference);
	const baselineOf = (arm: TrialArm) =>
		compared.find((item) => item.baseline && (!hasPages(design.kind) || item.page === arm.page));
	return compared
		.filter((arm) => !arm.baseline)
		.map((arm) => {
			const baseline = baselineOf(arm);
			if (!baseline) throw new RangeError('A trial needs a baseline arm.');
			return { baseline, arm };
		});
}

/**
 * What a trial judges: where it asks which is best every pair of candidates, the one that is named first before the
 * others; else its comparisons.
 */
export function judgedPairs(design: TrialDesign): Comparison[] {
	if (!asksForBest(design)) return comparisonsOf(design);
	const candidates = [...design.arms].sort((a, b) => Number(b.baseline) - Number(a.baseline));
	return candidates.flatMap((baseline, i) => candidates.slice(i + 1).map((arm) => ({ baseline, arm })));
}

/** The page that nobody touches; null where a trial has none. */
export function referenceOf({ arms }: Pick<TrialDesign, 'arms'>): TrialArm | null {
	return arms.find(({ reference, page }) => reference && page == null) ?? null;
}

/** Further pages of a log's sample: each is loaded in every stage, and judged with the log's own page. */
export function samplePagesOf({ arms }: Pick<TrialDesign, 'arms'>): TrialArm[] {
	return arms.filter(({ reference, page }) => reference && page != null);
}

/** Stages of a before-and-after trial, in the order of time. */
export function stagesOf(design: Pick<TrialDesign, 'arms'>): TrialArm[] {
	return design.arms.filter((arm) => !arm.reference);
}
