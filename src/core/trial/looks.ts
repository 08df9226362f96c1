/**
 * When a trial is looked at, and what each look may spend. `measurement.md` section 4.
 *
 * The whole error of a trial is 5 %. Its plan spends 4 %: at once at the end of a fixed trial, and by a power of the
 * share of rounds in an adaptive one. Looks after the plan draw on the last per cent.
 */
import { hasStages } from './kinds';
import type { Judgement, Look, TrialDesign } from './types';

/**
 * Rounds after which an adaptive trial looks (house): at eight rounds five metrics together cannot reach so small a
 * level.
 */
export const LOOKS = [10, 14, 18, 24] as const;
const PLAN_SPENDS = 0.04;
const SPENDING_POWER = 1.5;
/** The first further look; each later one spends half of the one before, so that all together stay below 1 %. */
const FIRST_RESERVE = 0.005;

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
 * The look at the end of a stage: the stages after the first share what the plan spends.
 * @param stages how many there are in all
 */
export function stageLook(
	design: Pick<TrialDesign, 'rounds' | 'looks'>,
	stage: number,
	stages: number,
	rounds: number,
	by: Look['by']
): Look {
	const share = PLAN_SPENDS / Math.max(1, stages - 1);
	const before = (design.looks ?? []).filter((look) => look.stage === stage).reduce((sum, look) => sum + look.spent, 0);
	const earned = share * Math.min(1, rounds / design.rounds) ** SPENDING_POWER;
	return { rounds, stage, spent: Math.max(0, earned - before), by };
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

/** Every metric decided on has a verdict, or can have none because loads failed. */
export function isDecided({ results }: Pick<Judgement, 'results'>): boolean {
	const primary = results.filter((result) => result.primary);
	return (
		primary.length > 0 &&
		primary.every(({ verdict, reason }) => verdict !== 'undecided' && (verdict !== 'none' || reason !== null))
	);
}

/** No open metric is likely to be decided by the end of the plan: further rounds would be loads for nothing. */
export function isHopeless({ results, looks }: Pick<Judgement, 'results' | 'looks'>): boolean {
	const open = results.filter((result) => result.primary && result.verdict === 'undecided');
	const rounds = looks.at(-1)?.rounds ?? 0;
	return rounds >= HOPE_FROM && open.length > 0 && open.every((result) => (result.hope ?? 0) < LEAST_HOPE);
}
