/** The figures of a journey: how long its acts took, as the visitor saw it. */
import type { Figures } from '../../metrics/catalogue';
import type { StepRecord } from '../record/record';
import { EXPECT_WITHIN_MS, WAIT_WITHIN_MS, type Step, type StepState } from '../journey/steps';

const ACTS: readonly string[] = ['open', 'click', 'type', 'press', 'scroll'];

/**
 * Times of all acts of a journey together, ms. A journey that failed has none; nor has one in which an act's content
 * was awaited and not timed: a sum that lacks a part would be too small.
 */
export function stepFigures(
	steps: readonly Pick<StepRecord, 'kind' | 'status' | 'awaited' | 'shownMs' | 'quietMs'>[]
): Pick<Figures, 'stepShown' | 'stepQuiet'> {
	const acts = steps.filter(({ kind }) => ACTS.includes(kind));
	if (steps.some(({ status }) => status !== 'ok')) return { stepShown: null, stepQuiet: null };
	return {
		stepShown: sumOrNull(acts.filter(({ awaited }) => awaited).map(({ shownMs }) => shownMs)),
		stepQuiet: sumOrNull(acts.map(({ quietMs }) => quietMs))
	};
}

function sumOrNull(values: readonly (number | null)[]): number | null {
	if (!values.length || values.includes(null)) return null;
	return values.reduce<number>((sum, value) => sum + value!, 0);
}

export interface Awaited {
	state: StepState;
	/** How long it is waited for once the page is quiet, ms. */
	withinMs: number;
}

/** What must come of an act, as the step after it says; null where the next is no such step. */
export function awaitedAfter(steps: readonly Step[], index: number): Awaited | null {
	const next = steps[index + 1];
	if (!next || !ACTS.some((verb) => verb in steps[index]!)) return null;
	if ('expect' in next) return { state: next.expect, withinMs: next.within ?? EXPECT_WITHIN_MS };
	if (!('wait' in next) || typeof next.wait === 'number') return null;
	return { state: next.wait, withinMs: next.within ?? WAIT_WITHIN_MS };
}
