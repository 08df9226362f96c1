/** What a trial is made of, as plain data. */
import type { Figures, MetricId } from '../metrics/catalogue';
import type { Conditions } from '../load/conditions';
import type { Step } from '../load/steps';
import type { Setup } from './setup';

/** `same-page` loads one page twice a round: the noise floor. `sweep` tries one change on several pages. */
export type TrialKind = 'side-by-side' | 'before-after' | 'same-page' | 'sweep';

export interface TrialArm {
	id: number;
	name: string;
	url: string;
	baseline: boolean;
	/** The reference page of a before-and-after trial: loaded in every stage, compared with itself only. */
	reference: boolean;
	/** Sweeps: the page that this arm is a version of, as printed. */
	page?: string | null;
	/** What the page runs on in this arm. */
	setup?: Setup | null;
}

export interface TrialDesign {
	kind: TrialKind;
	/** In a before-and-after trial the arms are its stages, in the order of time. */
	arms: TrialArm[];
	conditions: Conditions[];
	rounds: number;
	warmups: number;
	/** 32-bit whole number; the orders of all rounds follow from it. */
	seed: number;
	primary: MetricId[];
	/** Looks after 8, 12, 16, 20 and 24 rounds and stops when all is decided; `rounds` is then the most. */
	adaptive?: boolean;
	/** Earlier ends of the trial, in rounds, after which the analyst saw the answer and asked for more. */
	looks?: number[];
	/** Longest wait for the served page to be stable before the warm-ups, ms; null does not wait. */
	settleWithinMs?: number | null;
	/** What is done after each load: checks that nothing broke. */
	steps?: Step[];
	/** Ids of fairness lines that differ because the question is about them. */
	intended?: string[];
	/** Loads not before this moment (UTC ISO), and spread over so many minutes. */
	notBefore?: string | null;
	spreadMinutes?: number | null;
}

/** One load that a trial asks for. */
export interface PlannedLoad {
	armId: number;
	conditionId: string;
	/** Stage number from 0; 0 for all loads of a side-by-side trial. */
	stage: number;
	/** From 1; warm-ups count on their own, from 1 too. */
	round: number;
	warmup: boolean;
	/** Only fetches the page until it is stable; before the warm-ups of its stage, as round 0. */
	settle?: boolean;
}

/** What judging needs of one finished load. */
export interface TrialLoad {
	id: number;
	armId: number;
	conditionId: string;
	stage: number;
	round: number;
	warmup: boolean;
	status: 'ok' | 'failed';
	/** The analyst's reason for leaving this load out; null counts it. */
	excluded: string | null;
	figures: Readonly<Figures>;
}

export type Verdict = 'better' | 'worse' | 'same' | 'slight' | 'undecided' | 'none';

/** Ends are null where so few rounds cannot give an interval. */
export interface Interval {
	estimate: number;
	low: number | null;
	high: number | null;
}

export interface Shift extends Interval {
	/** Shares of the baseline on the log scale, 0.18 for +18 %; null where a value is zero or the unit has no ratio. */
	relative: Interval | null;
}

export interface ShiftResult {
	condition: string;
	metric: MetricId;
	/** Arm ids; in a sweep, arm 0 is all pages together. */
	baseline: number;
	arm: number;
	/** Rounds with both arms, or loads of the smaller stage. */
	n: number;
	baselineMedian: number | null;
	armMedian: number | null;
	shift: Shift | null;
	/** The shift before the correction by the reference page; null without one. */
	rawShift: Interval | null;
	margin: number;
	/** As tested, and after Holm's correction over arms and primary metrics; null without a shift. */
	p: number | null;
	adjustedP: number | null;
	primary: boolean;
	verdict: Verdict;
	/** Why there is no verdict; null otherwise. */
	reason: string | null;
	/** Undecided only: rounds that would probably decide it; null when no sensible number would. */
	roundsNeeded: number | null;
}

export interface ArmHealth {
	condition: string;
	arm: number;
	loads: number;
	failed: number;
	excluded: number;
}

export interface Judgement {
	/** Version of the rules that computed it; a cached judgement of another version is computed again. */
	version: string;
	/** Level of each test, after the price of looking more than once. */
	alpha: number;
	/** Looks that share the overall 5 %. */
	looks: number;
	results: ShiftResult[];
	health: ArmHealth[];
}
