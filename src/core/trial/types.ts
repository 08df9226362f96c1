/** What a trial is made of, as plain data. */
import type { Figures, Margin, MetricId } from '../metrics/catalogue';
import type { Conditions } from '../load/conditions/conditions';
import type { Step } from '../load/journey/steps';
import type { VisitorState } from '../load/journey/visitorState';
import type { Cold } from './design/cold';
import type { MustSend } from './design/mustSend';
import type { PresenceCheck } from './design/presence';
import type { Rewrite } from '../rewrites/rewrite';
import type { Setup } from './design/setup';

/** `same-page` loads one page twice a round: the noise floor. `sweep` tries one change on several pages. */
export type TrialKind = 'side-by-side' | 'before-after' | 'same-page' | 'sweep';

/** Each arm against the baseline, or every candidate against every other. Chosen before the start. */
export type TrialAim = 'baseline' | 'best';

/** What became of a step: left as it is, set lower, undone, or not decided. */
export type StepDecision = 'kept' | 'weakened' | 'taken-back' | 'open';

export interface TrialArm {
	id: number;
	name: string;
	url: string;
	baseline: boolean;
	/**
	 * Loaded in every stage of a before-and-after trial, and compared with itself only: the reference page; where
	 * `page` names it, a further page of a log's sample.
	 */
	reference: boolean;
	/** Sweeps: the page that this arm is a version of, as printed. Logs on a sample: the page. */
	page?: string | null;
	/** The page of a site that it loads, where it is one that Zafra knows. */
	pageId?: number | null;
	/** What the page runs on in this arm. */
	setup?: Setup | null;
	/** What must be there, or gone, in its loads. */
	checks?: PresenceCheck[];
	/** Loaded with the site's cache empty, and how that is done. */
	cold?: Cold | null;
	/** Who the visitor is before the page is measured; an anonymous one where it is missing. */
	before?: VisitorState | null;
	/** What the lab changes of the page on its way: a rehearsal. */
	rewrites?: Rewrite[];
	/** What is done after each of its loads, where that is not what the trial says for all. */
	steps?: Step[] | null;
	/** A step of a log: what became of it, and why. */
	decision?: StepDecision;
	decisionNote?: string | null;
	/** A step of a log in which another one was taken back: its arm. */
	undoes?: number | null;
}

/** A moment at which a trial was judged. What is shown between looks is no answer. */
export interface Look {
	/** Whole rounds by then; of the stage in a before-and-after trial. */
	rounds: number;
	/** Before and after: number of the stage that is compared with the first one. */
	stage?: number;
	/** Chance of any false call that may have been spent by then, over all looks; in stages of this stage. 0 to 1. */
	spent: number;
	/** `stop`: the analyst ended the trial there; `added`: rounds were added to a trial that had ended. */
	by: 'plan' | 'stop' | 'added';
}

export interface TrialDesign {
	kind: TrialKind;
	/** Against the baseline where none is named. */
	aim?: TrialAim;
	/** In a before-and-after trial the arms are its stages, in the order of time. */
	arms: TrialArm[];
	conditions: Conditions[];
	rounds: number;
	warmups: number;
	/** 32-bit whole number; the orders of all rounds follow from it. */
	seed: number;
	primary: MetricId[];
	/** Looks after 10, 14, 18 and 24 rounds and stops when all is decided; `rounds` is then the most. */
	adaptive?: boolean;
	/** The machine was too busy to wait for calm loads: disturbed ones count too. */
	countsDisturbed?: boolean;
	/** At its end each variant is loaded once patiently and once with an interaction, under each of the conditions. */
	lateLoads?: boolean;
	/** Ids of the arms for which that was asked. */
	lateAsked?: number[];
	/** Requests that must still leave. */
	mustSend?: MustSend[];
	/** A log of steps: how many are planned. */
	plannedSteps?: number | null;
	/** Number of the stage in which the change is taken back. */
	returnStage?: number | null;
	/** How often rounds were added after the trial had ended. */
	added?: number;
	/** The looks that were taken, in order: only at them is there an answer. */
	looks?: Look[];
	/** Margins that differ from the house's. */
	margins?: Partial<Record<MetricId, Margin>>;
	/** Levels that are good enough; the metric's good threshold where none is named. */
	targets?: Partial<Record<MetricId, number>>;
	/** The same for some conditions, by their id: these go before the others. */
	conditionTargets?: Record<string, Partial<Record<MetricId, number>>>;
	/** Longest wait for the served page to be stable before the warm-ups, ms; null does not wait. */
	settleWithinMs?: number | null;
	/** Rehearsals: the page is answered as it came once, not by its host. */
	twin?: boolean;
	/** The line of the worklist whose mend is rehearsed. */
	rehearses?: number | null;
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
	/** The machine was busy with something else during it. */
	disturbed: boolean;
	/** The analyst's reason for leaving this load out; null counts it. */
	excluded: string | null;
	/** Whether it met each check of its arm, null where it cannot be told; absent without checks. */
	checks?: (boolean | null)[];
	figures: Readonly<Figures>;
}

export type Verdict = 'better' | 'worse' | 'same' | 'slight' | 'undecided' | 'none';

/** Why there is no verdict; worded in core/wording. */
export type NoVerdictReason =
	| { code: 'failures'; failed: number; loads: number; arm: string }
	| { code: 'not-measured'; metric: MetricId }
	| { code: 'reference-failures'; failed: number; loads: number; stage: string }
	| { code: 'few-rounds'; stage: string; rounds: number; least: number }
	| { code: 'presence'; stage: string; check: string; met: number; loads: number }
	| { code: 'few-pages' }
	/** Stages, with neither a reference page nor a return to the first state. */
	| { code: 'no-drift-check' };

/** Ends are null where so few rounds cannot give an interval. */
export interface Interval {
	estimate: number;
	low: number | null;
	high: number | null;
}

export interface Shift extends Interval {
	/** The estimate as a share of the baseline's middle figure, -0.26 for 26 % less; null where that says nothing. */
	relative: number | null;
}

/** How both middle figures stand to the target. */
export type TargetStanding = 'both-met' | 'crosses' | 'both-missed';

export interface Target {
	value: number;
	standing: TargetStanding;
}

export interface ShiftResult {
	condition: string;
	metric: MetricId;
	/** Arm ids; in a sweep, arm 0 is all pages together. */
	baseline: number;
	arm: number;
	/** Of a log on a sample: the arm of the further page that it is about; absent for the log's own. */
	page?: number;
	/** Rounds with both arms, or loads of the smaller stage. */
	n: number;
	baselineMedian: number | null;
	armMedian: number | null;
	shift: Shift | null;
	/** The shift before the correction by the reference page; null without one. */
	rawShift: Interval | null;
	/** Of page and reference page over the rounds of a stage, -1 to 1; null without one. Low: correcting adds noise. */
	referenceCorrelation: number | null;
	/**
	 * `share`: shift and margin are shares of the baseline (all pages of a sweep together); else in the metric's unit.
	 */
	scale: 'unit' | 'share';
	margin: number;
	/**
	 * As tested alone, and adjusted over everything that the trial decides on (Westfall and Young); null without a
	 * shift.
	 */
	p: number | null;
	adjustedP: number | null;
	primary: boolean;
	/** `none` for what the trial does not decide on, and for what has a reason. */
	verdict: Verdict;
	/** Level of the interval, 0.95 or 0.985. */
	level: number;
	/** Rounds of the look at which it was decided for good; null while open. */
	decidedAt: number | null;
	/** Why there is no verdict; null otherwise. */
	reason: NoVerdictReason | null;
	/**
	 * Undecided only: rounds that would probably decide it, in all; more than MOST_ROUNDS stands for any larger number.
	 */
	roundsNeeded: number | null;
	/** Undecided only: the chance that it is decided by the last planned look; 0 to 1. */
	hope: number | null;
	target: Target | null;
}

/** How much the loads of one arm differ among themselves, over all arms: blind to which arm is which. */
export interface PooledSpread {
	condition: string;
	metric: MetricId;
	loads: number;
	/** Scaled median absolute deviation within arms, in the metric's unit, and as a share of the middle figure. */
	spread: number;
	share: number | null;
}

export interface ArmHealth {
	condition: string;
	arm: number;
	loads: number;
	failed: number;
	excluded: number;
	/** Made while the machine was busy; absent in judgements from before. */
	disturbed?: number;
}

/** What was judged of stages: against the first, and in a log also each against the one before. */
export interface StageResults {
	start: ShiftResult[];
	previous: ShiftResult[];
}

export interface Judgement {
	/** Version of the rules that computed it; a cached judgement of another version is computed again. */
	version: string;
	/** Recipe of the scores that were judged. */
	recipe: string;
	looks: Look[];
	/** As of the last look; empty before the first. Every load counts, excluded ones too. */
	results: ShiftResult[];
	/** Asked which is best: of every pair of candidates. Those with the first named are the results too. */
	everyPair?: ShiftResult[];
	/** In a log: each step against the stage before it. Against the start are the results. */
	steps?: ShiftResult[];
	/** Of a log on a sample: the same of its further pages, judged in one family with its own. */
	samplePages?: StageResults;
	/** What the results would be without the excluded loads; null when none is excluded. It decides nothing. */
	withoutExcluded: ShiftResult[] | null;
	health: ArmHealth[];
	spread: PooledSpread[];
}

/** Some variant is changed by the lab on its way: all of them pass its rewriting server. */
export const isRehearsal = ({ arms }: Pick<TrialDesign, 'arms'>): boolean =>
	arms.some(({ rewrites }) => (rewrites?.length ?? 0) > 0);
