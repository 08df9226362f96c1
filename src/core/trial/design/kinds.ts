/** What each kind of trial is: everything that differs by kind stands here. */
import type { TrialKind } from '../types';

export interface KindRules {
	/** Arms are stages of one page, measured one after the other; else every round loads all arms. */
	stages: boolean;
	/** Each page has a baseline of its own, and all pages together are judged too. */
	pages: boolean;
	/** Both arms are the same page: any difference is the lab's own. */
	samePage: boolean;
	leastArms: number;
	mostArms: number;
	/** May look early and stop when all is decided. */
	mayAdapt: boolean;
	/** May have a page that nobody touches in every stage. */
	mayHaveReference: boolean;
	/** May get rounds added once it is done. */
	mayGrow: boolean;
}

const INTERLEAVED = { stages: false, mayAdapt: true, mayHaveReference: false, mayGrow: true };

export const KINDS: Readonly<Record<TrialKind, KindRules>> = {
	'side-by-side': { ...INTERLEAVED, pages: false, samePage: false, leastArms: 2, mostArms: 8 },
	'same-page': { ...INTERLEAVED, pages: false, samePage: true, leastArms: 1, mostArms: 2 },
	// Ten pages, before and after.
	sweep: { ...INTERLEAVED, pages: true, samePage: false, leastArms: 2, mostArms: 20 },
	'before-after': {
		stages: true,
		pages: false,
		samePage: false,
		leastArms: 2,
		mostArms: 8,
		mayAdapt: false,
		mayHaveReference: true,
		mayGrow: false
	}
};

export const TRIAL_KINDS = Object.keys(KINDS) as TrialKind[];

export const hasStages = (kind: TrialKind): boolean => KINDS[kind].stages;
export const hasPages = (kind: TrialKind): boolean => KINDS[kind].pages;
export const isSamePage = (kind: TrialKind): boolean => KINDS[kind].samePage;
