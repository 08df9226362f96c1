/** What each kind of trial is: everything that differs by kind stands here. */
import type { TrialAim, TrialDesign, TrialKind } from '../types';

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
	/** What may be asked of it. */
	aims: readonly TrialAim[];
}

const INTERLEAVED = { stages: false, mayAdapt: true, mayHaveReference: false, mayGrow: true } as const;
const BASELINE: readonly TrialAim[] = ['baseline'];

export const KINDS: Readonly<Record<TrialKind, KindRules>> = {
	'side-by-side': {
		...INTERLEAVED,
		pages: false,
		samePage: false,
		leastArms: 2,
		mostArms: 8,
		aims: ['baseline', 'best']
	},
	'same-page': { ...INTERLEAVED, pages: false, samePage: true, leastArms: 1, mostArms: 2, aims: BASELINE },
	// Forty pages, before and after.
	sweep: { ...INTERLEAVED, pages: true, samePage: false, leastArms: 2, mostArms: 80, aims: BASELINE },
	'before-after': {
		stages: true,
		pages: false,
		samePage: false,
		leastArms: 2,
		mostArms: 8,
		mayAdapt: false,
		mayHaveReference: true,
		mayGrow: false,
		aims: BASELINE
	}
};

export const TRIAL_KINDS = Object.keys(KINDS) as TrialKind[];

export const TRIAL_AIMS: readonly TrialAim[] = ['baseline', 'best'];
/** With two there is nothing to place: the one is better than the other, or not. */
export const FEWEST_CANDIDATES = 3;

/** Every candidate is judged against every other. */
export const asksForBest = ({ aim }: Pick<TrialDesign, 'aim'>): boolean => aim === 'best';
export const hasStages = (kind: TrialKind): boolean => KINDS[kind].stages;
export const hasPages = (kind: TrialKind): boolean => KINDS[kind].pages;
export const isSamePage = (kind: TrialKind): boolean => KINDS[kind].samePage;
