/** How long a load may take at most. */
import type { LoadOrder } from '../journey/order';
import { MOST_READY, READY_CAP_MS } from '../journey/survey';
import { EFFECT_WITHIN_MS } from '../journey/tap';
import { EXPECT_WITHIN_MS, WAIT_WITHIN_MS, type Step } from '../journey/steps';

/** How long a patient load waits on once the page has settled, and how long nothing new must have come (house). */
export const PATIENCE = { leastMs: 15_000, mostMs: 30_000, quietMs: 10_000 };

/** For taking things out of the browser once the page has come to rest, or has run into its cap (house). */
export const COLLECTING_MS = 15_000;

/** For reading the files themselves. */
const KEEPING_MS = 10_000;

/** One check: its page, and steps that come to rest once each. */
const SURVEYED_MS = 4 * READY_CAP_MS;

type Timed = Pick<LoadOrder, 'conditions' | 'steps' | 'patience' | 'tap' | 'before' | 'survey' | 'bodies'>;

/**
 * The time after which a load is ended from outside, ms: the cap of each of its parts (a first visit before a repeat
 * visit, what comes before, the page, the nudge, each step), the wait for a calm machine before each visit, and a fixed
 * allowance for collecting.
 */
export function longestLoadMs(order: Timed, waitMs = 0): number {
	const { conditions, steps, patience = false, tap, before, survey = false, bodies = false } = order;
	const visits = 1 + Number(conditions.cache === 'repeat');
	const beforeMs = before ? conditions.capMs + longestStepsMs(before.steps, conditions.capMs) : 0;
	const parts = visits + Number(conditions.input === 'nudge');
	const patienceMs = patience ? PATIENCE.mostMs : 0;
	const tapMs = tap ? tap.afterMs + EFFECT_WITHIN_MS : 0;
	const stepsMs = longestStepsMs(steps, conditions.capMs);
	const surveyMs = survey ? MOST_READY * SURVEYED_MS : 0;
	const doneMs = patienceMs + tapMs + stepsMs + surveyMs + (bodies ? KEEPING_MS : 0);
	return parts * conditions.capMs + visits * waitMs + beforeMs + doneMs + COLLECTING_MS;
}

const longestStepsMs = (steps: readonly Step[], capMs: number) =>
	steps.reduce((sum, step) => sum + longestStepMs(step, capMs), 0);

/** What an act awaits is watched for once after the act and once as a step of its own. */
function longestStepMs(step: Step, capMs: number): number {
	if ('mark' in step) return 0;
	if ('expect' in step) return 2 * (step.within ?? EXPECT_WITHIN_MS);
	if ('wait' in step) return capMs + (typeof step.wait === 'number' ? step.wait : 2 * (step.within ?? WAIT_WITHIN_MS));
	return capMs + EXPECT_WITHIN_MS;
}
