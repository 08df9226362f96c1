/**
 * When a trial is looked at, and what each look may spend. `measurement.md` section 4.
 *
 * The whole error of a trial is 5 %. Its plan spends 4 %: at once at the end of a fixed trial, and by a power of the
 * share of rounds in an adaptive one, and where it is stopped. Looks after the plan draw on the last per cent.
 */
import { asksForBest, hasStages } from './kinds';
import type { Bound } from '../../stats/stepDown';
import type { Judgement, Look, ShiftResult, TrialDesign } from '../types';

/**
 * Rounds after which an adaptive trial looks (house): at eight rounds five metrics together cannot reach so small a
 * level.
 */
export const LOOKS = [10, 14, 18, 24] as const;
export const PLAN_SPENDS = 0.04;
const SPENDING_POWER = 1.5;
/** The first further look; each later one spends half of the one before, so that all together stay below 1 %. */
export const FIRST_RESERVE = 0.005;

/** Levels of the intervals: of a trial with one look, and of each look of a trial with several. */
export const ONE_LOOK_ALPHA = 0.05;
export const MANY_LOOKS_ALPHA = 0.015;

/** From this look on a trial ends when nothing open has hope. */
const HOPE_FROM = 14;
const LEAST_HOPE = 0.2;

/** What the plan has spent after so many of its rounds. */
export function plannedSpending(rounds: number, planned: number): number {
	return PLAN_SPENDS * Math.min(1, Math.max(0, rounds) / planned) ** SPENDING_POWER;
}

/** What all further looks together have spent. */
export function reserveSpending(furtherLooks: number): number {
	return 2 * FIRST_RESERVE * (1 - 0.5 ** furtherLooks);
}

/** Rounds that the plan of an interleaved trial runs to. */
export function plannedRounds(design: Pick<TrialDesign, 'adaptive' | 'rounds' | 'looks'>): number {
	if (design.adaptive) return LOOKS.at(-1)!;
	return design.looks?.find((look) => look.by === 'plan')?.rounds ?? design.rounds;
}

/** The look that is due after so many whole rounds of interleaved arms. */
export function nextLook(
	design: Pick<TrialDesign, 'adaptive' | 'rounds' | 'looks'>,
	rounds: number,
	by: Look['by']
): Look {
	const further = (design.looks ?? []).filter((look) => look.by === 'added').length + Number(by === 'added');
	const before = design.looks?.at(-1)?.spent ?? 0;
	const spent = plannedSpending(rounds, plannedRounds(design)) + reserveSpending(further);
	return { rounds, spent: Math.max(before, spent), by };
}

/**
 * The look at the end of a stage.
 * @param share what the stage may spend in all: {@link equalShare}, or what a log gives its step
 */
export function stageLook(
	design: Pick<TrialDesign, 'rounds' | 'looks'>,
	{ stage, share, rounds, by }: { stage: number; share: number; rounds: number; by: Look['by'] }
): Look {
	const before = (design.looks ?? []).findLast((look) => look.stage === stage)?.spent ?? 0;
	return { rounds, stage, spent: Math.max(before, stageSpending(design, share, rounds)), by };
}

/** Interleaved rounds before which nothing can be called at so small a level. */
const FIRST_BOUND = 6;

/**
 * The bounds that an interleaved trial has met by a look. Loads can be read as they come, so that the moment of a stop
 * is chosen from the data: for a stop a bound stands at every whole round of the plan, also where nobody looked. A
 * planned look comes when it comes, and keeps what its plan gives it: bounds at each round before it would cost it 5 to
 * 8 points of power. Both together hold 5 % (simulated, `bench/verdicts`), since a stop must also be beyond its wider
 * interval. Where comparisons have small shares of the level that interval is no hindrance: there what was spent by a
 * stop is spent (without: 7 % false in a log whose stages were stopped again and again).
 */
export function boundsOf(
	design: Pick<TrialDesign, 'adaptive' | 'rounds' | 'looks' | 'aim'>,
	looks: readonly Look[],
	index: number
): Bound[] {
	const planned = plannedRounds({ ...design, looks: [...looks] });
	const taken = looks.slice(0, index + 1);
	const remembersStops = asksForBest(design) || taken.at(-1)!.by === 'stop';
	const met = remembersStops ? taken : taken.filter(({ by }) => by !== 'stop');
	const last = Math.min(planned, lastStop(met));
	return everyRound(FIRST_BOUND, last, met, (rounds) => {
		const added = taken.filter((look) => look.by === 'added' && look.rounds <= rounds).length;
		return plannedSpending(rounds, planned) + reserveSpending(added);
	});
}

/** Fewest rounds after a change that can be told from those before it. */
export const FEWEST_STAGE_ROUNDS = 4;

/**
 * The same of a stage after the first, whose rounds are compared with those of the first.
 * @param looks at that stage
 */
export function stageBoundsOf(
	design: Pick<TrialDesign, 'rounds' | 'plannedSteps'>,
	share: number,
	looks: readonly Look[],
	index: number
): Bound[] {
	const taken = looks.slice(0, index + 1);
	const end = taken.at(-1)!;
	const met = design.plannedSteps != null || end.by === 'stop' ? taken : [end];
	const last = Math.min(design.rounds, lastStop(met));
	return everyRound(FEWEST_STAGE_ROUNDS, last, met, (rounds) => stageSpending(design, share, rounds));
}

/** Rounds of the last look at which the analyst stopped; 0 without one. */
const lastStop = (looks: readonly Look[]): number => looks.findLast(({ by }) => by === 'stop')?.rounds ?? 0;

function everyRound(first: number, last: number, looks: readonly Look[], spentAt: (rounds: number) => number): Bound[] {
	const rounds = new Set(looks.map((look) => look.rounds));
	for (let round = first; round <= last; round++) rounds.add(round);
	let most = 0;
	return [...rounds]
		.sort((a, b) => a - b)
		.map((round) => ({ rounds: round, spent: (most = Math.max(most, spentAt(round))) }));
}

/** What each stage after the first may spend: such stages share what the plan spends. @param stages in all */
export const equalShare = (stages: number): number => PLAN_SPENDS / Math.max(1, stages - 1);

/** What a stage has spent of its share after so many of its rounds. */
function stageSpending({ rounds: planned }: Pick<TrialDesign, 'rounds'>, share: number, rounds: number): number {
	return (plannedSpending(rounds, planned) / PLAN_SPENDS) * share;
}

/** Rounds were added and have not been looked at yet. */
export function awaitsAddedRounds({ added = 0, looks = [] }: Pick<TrialDesign, 'added' | 'looks'>): boolean {
	return added > looks.filter((look) => look.by === 'added').length;
}

/** Whether an adaptive trial looks after so many whole rounds. */
export function isLookDue(design: Pick<TrialDesign, 'adaptive' | 'looks' | 'added'>, rounds: number): boolean {
	return (
		Boolean(design.adaptive) &&
		!design.added &&
		isPlanned(rounds) &&
		!design.looks?.some((look) => look.rounds >= rounds)
	);
}

function isPlanned(rounds: number): boolean {
	return (LOOKS as readonly number[]).includes(rounds);
}

/** After how many rounds the next look comes; null when none is planned. */
export function roundsOfNextLook(
	design: Pick<TrialDesign, 'adaptive' | 'rounds' | 'looks' | 'kind' | 'added'>
): number | null {
	const last = hasStages(design.kind) ? 0 : (design.looks?.at(-1)?.rounds ?? 0);
	if (design.adaptive && !design.added) {
		const planned = LOOKS.find((rounds) => rounds > last);
		if (planned && planned <= design.rounds) return planned;
	}
	return design.rounds > last ? design.rounds : null;
}

/** Level of the intervals of a look. */
export function intervalAlpha(design: Pick<TrialDesign, 'adaptive'>, looks: readonly Look[], index: number): number {
	const isOnly = !design.adaptive && index === 0 && looks[0]!.by === 'plan';
	return isOnly ? ONE_LOOK_ALPHA : MANY_LOOKS_ALPHA;
}

type Decided = Pick<Judgement, 'results' | 'everyPair'>;

/** All that a trial decides on: every pair of candidates where it asks which is best. */
export const decisive = ({ results, everyPair }: Decided): readonly ShiftResult[] => everyPair ?? results;

/** Every metric decided on has a verdict, or can have none because loads failed. */
export function isDecided(judgement: Decided): boolean {
	const primary = decisive(judgement).filter((result) => result.primary);
	return (
		primary.length > 0 &&
		primary.every(({ verdict, reason }) => verdict !== 'undecided' && (verdict !== 'none' || reason !== null))
	);
}

/** No open metric is likely to be decided by the end of the plan: further rounds would be loads for nothing. */
export function isHopeless(judgement: Decided & Pick<Judgement, 'looks'>): boolean {
	const open = decisive(judgement).filter((result) => result.primary && result.verdict === 'undecided');
	const rounds = judgement.looks.at(-1)?.rounds ?? 0;
	return rounds >= HOPE_FROM && open.length > 0 && open.every((result) => (result.hope ?? 0) < LEAST_HOPE);
}
