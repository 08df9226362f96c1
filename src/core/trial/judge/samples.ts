/** From the loads of a trial to figures by arm and round. */
import { wordRewrite } from '../../wording/rewrites';
import { countedLoads } from './counted';
import { presenceLine } from '../design/presence';
import type { MetricId } from '../../metrics/catalogue';
import type { ArmHealth, NoVerdictReason, TrialArm, TrialDesign, TrialLoad } from '../types';

/** Figures by round, from round 1 on; null where a round has none. */
export type ByRound = (number | null)[];

export interface Slot {
	condition: string;
	armId: number;
	stage?: number;
}

/** Finished loads of a trial, looked up by where they belong. Warm-ups are none of them. */
export class Samples {
	#bySlot = new Map<string, TrialLoad[]>();
	#counted: ReadonlySet<TrialLoad>;

	constructor(design: Pick<TrialDesign, 'countsDisturbed'>, loads: readonly TrialLoad[]) {
		this.#counted = new Set(countedLoads(design, loads));
		for (const load of loads) {
			if (load.warmup) continue;
			for (const key of [keyOf(load.conditionId, load.armId), keyOf(load.conditionId, load.armId, load.stage)]) {
				const existing = this.#bySlot.get(key);
				if (existing) existing.push(load);
				else this.#bySlot.set(key, [load]);
			}
		}
	}

	loads({ condition, armId, stage }: Slot): readonly TrialLoad[] {
		return this.#bySlot.get(keyOf(condition, armId, stage)) ?? [];
	}

	/** Those that count. */
	counted(slot: Slot): readonly TrialLoad[] {
		return this.loads(slot).filter((load) => this.#counted.has(load));
	}

	/** Figures of the first so many rounds; a round without a load that counts has none. */
	byRound(slot: Slot, metric: MetricId, rounds: number): ByRound {
		const figures: ByRound = new Array<number | null>(rounds).fill(null);
		for (const load of this.counted(slot)) if (load.round <= rounds) figures[load.round - 1] = load.figures[metric];
		return figures;
	}
}

function keyOf(condition: string, armId: number, stage?: number): string {
	return `${condition}/${armId}/${stage ?? ''}`;
}

export function present(figures: ByRound): number[] {
	return figures.filter((figure) => figure !== null);
}

/** An arm gets no verdict when a larger share of its slots stayed without a good load, tries and all. */
const MOST_FAILURES = 0.2;
/** Nor when a larger share of all its loads failed: loads that fail for being slow would leave only the quick ones. */
const MOST_FAILED_TRIES = 1 / 3;

/** Whether so many loads failed that what is left says little of the page. */
export function failedTooOften(loads: readonly TrialLoad[]): boolean {
	const failed = loads.filter((load) => load.status === 'failed').length;
	const slots = new Set(loads.map((load) => load.round));
	for (const load of loads) if (load.status === 'ok') slots.delete(load.round);
	const all = new Set(loads.map((load) => load.round)).size;
	return slots.size > all * MOST_FAILURES || failed > loads.length * MOST_FAILED_TRIES;
}

/** How many of an arm's counted loads met each of its checks, of those that could tell. */
/** What must be so in each load of an arm, in words: its checks, and that what the lab shall change was changed. */
const checksOf = ({ checks = [], rewrites = [] }: Pick<TrialArm, 'checks' | 'rewrites'>): string[] => [
	...checks.map(presenceLine),
	...rewrites.map((rewrite) => wordRewrite(rewrite))
];

export function presenceOf(
	samples: Samples,
	condition: string,
	arm: TrialArm,
	rounds = Infinity
): { check: string; met: number; loads: number }[] {
	const loads = samples.counted({ condition, armId: arm.id }).filter((load) => load.round <= rounds);
	return checksOf(arm).map((check, i) => {
		const checked = loads.filter((load) => load.checks?.[i] != null);
		return { check, met: checked.filter((load) => load.checks![i]).length, loads: checked.length };
	});
}

/** Why a stage that is not what it should be gets no verdict; null when every check was met in every load. */
export function presenceReason(
	samples: Samples,
	condition: string,
	stages: readonly TrialArm[]
): NoVerdictReason | null {
	for (const stage of stages) {
		const missed = presenceOf(samples, condition, stage).find(({ met, loads }) => met < loads);
		if (missed) return { code: 'presence', stage: stage.name, ...missed };
	}
	return null;
}

export function healthOf(samples: Samples, design: TrialDesign): ArmHealth[] {
	return design.conditions.flatMap(({ id: condition }) =>
		design.arms.map((arm): ArmHealth => {
			const loads = samples.loads({ condition, armId: arm.id });
			return {
				condition,
				arm: arm.id,
				loads: loads.length,
				failed: loads.filter((load) => load.status === 'failed').length,
				excluded: loads.filter((load) => load.excluded !== null).length,
				disturbed: loads.filter((load) => load.disturbed).length
			};
		})
	);
}

/** Why arms that failed too often get no verdict by a round; null when none did. */
export function failureReason(
	samples: Samples,
	condition: string,
	arms: readonly TrialArm[],
	rounds = Infinity
): NoVerdictReason | null {
	for (const arm of arms) {
		const loads = samples.loads({ condition, armId: arm.id }).filter((load) => load.round <= rounds);
		const failed = loads.filter((load) => load.status === 'failed').length;
		if (failedTooOften(loads)) return { code: 'failures', failed, loads: loads.length, arm: arm.name };
	}
	return null;
}
