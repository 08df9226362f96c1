/** Looking at a trial before its end, and what each look costs. */
import { pocockLevel } from '../stats/groupSequential';
import type { Judgement, TrialDesign } from './types';

/** Rounds after which an adaptive trial looks (house). */
export const LOOKS = [8, 12, 16, 20, 24] as const;
const OVERALL = 0.05;

/** How many looks share the overall 5 %: five of an adaptive trial, else the last one and those before more rounds were asked for. */
export function looksOf(design: Pick<TrialDesign, 'adaptive' | 'looks'>): number {
	return design.adaptive ? LOOKS.length + (design.looks?.length ?? 0) : 1 + (design.looks?.length ?? 0);
}

/** Level of each test: Pocock's for that many looks. Their spacing is uneven, which makes it a little too strict. */
export function levelOf(design: Pick<TrialDesign, 'adaptive' | 'looks'>): number {
	return pocockLevel(Math.min(20, looksOf(design)), OVERALL);
}

/** The look that so many whole rounds reach, in rounds; null between looks. */
export function lookAt(rounds: number): number | null {
	return (LOOKS as readonly number[]).includes(rounds) ? rounds : null;
}

/** Every metric decided on has a verdict, or can have none because loads failed. */
export function isDecided(judgement: Judgement): boolean {
	const primary = judgement.results.filter((result) => result.primary);
	return primary.length > 0 && primary.every((result) => result.verdict !== 'undecided' && (result.verdict !== 'none' || result.reason !== null));
}
