/** A line of the fairness sheet: something that was equal, different or unknown between two arms. */
import type { ArmHealth, TrialArm } from '../../trial/types';
import type { FairFacts, LoadDigest } from '../digest';

export type LineId =
	| 'conditions'
	| 'browser'
	| 'machine'
	| 'time'
	| 'status'
	| 'redirects'
	| 'visitor'
	| 'cache'
	| 'compression'
	| 'text-compression'
	| 'protocol'
	| 'host'
	| 'cdn'
	| 'overlay'
	| 'fonts'
	| 'third-parties'
	| 'words'
	| 'picture'
	| 'tiers'
	| 'features'
	| 'failures';

export type LineState = 'equal' | 'differs' | 'unknown';

/** What an arm shows: worded in core/wording by its kind. */
export type LineValue =
	| { kind: 'unknown' | 'none' | 'nothing' | 'frozen-copy' | 'not-compared' | 'anonymous' }
	| { kind: 'text'; text: string }
	/** Loads whose document came from a cache, of those that say so. */
	| { kind: 'cache-hits'; hits: number; of: number }
	/** Loops per ms. */
	| { kind: 'speed'; value: number }
	/** 0 to 1. */
	| { kind: 'share'; value: number }
	| { kind: 'alike'; value: number }
	/** UTC ISO. */
	| { kind: 'span'; from: string; to: string }
	| { kind: 'failures'; failed: number; of: number };

export interface FairnessLine {
	id: LineId;
	state: LineState;
	/** Of the baseline, of the arm. */
	values: [before: LineValue, after: LineValue];
	/** What the sentence on its meaning needs beyond the id. */
	about: Record<string, string | number>;
	/** The question is about it. */
	intended: boolean;
}

export interface Side {
	arm: TrialArm;
	/** Digests of its counted loads; may be empty. */
	loads: readonly LoadDigest[];
	health: ArmHealth | null;
}

export interface Sides {
	before: Side;
	after: Side;
	/** Arms follow each other as stages. */
	inStages: boolean;
	/** Share of alike pixels of the finished pages, 0 to 1; null when not compared. */
	likeness: number | null;
}

/** Null where the line would say nothing. */
export type FairnessRule = (sides: Sides) => Omit<FairnessLine, 'intended'> | null;

export const UNKNOWN: LineValue = { kind: 'unknown' };
export const text = (words: string): LineValue => ({ kind: 'text', text: words });

export function factsOfSide({ loads }: Side): FairFacts[] {
	return loads.map((load) => load.facts);
}

/** Equal or different by a test, unknown where a side says nothing. */
export function lineState(isKnown: boolean, isEqual: boolean): LineState {
	return !isKnown ? 'unknown' : isEqual ? 'equal' : 'differs';
}
