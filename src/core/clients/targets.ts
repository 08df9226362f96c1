/** Targets of a client as a trial keeps them. */
import type { MetricId } from '../metrics/catalogue';
import type { TrialDesign } from '../trial/types';
import type { Target } from './client';

type Levels = Partial<Record<MetricId, number>>;

/** Those for all conditions, and those for some, which go before them. */
export function targetsByConditions(
	targets: readonly Target[]
): Required<Pick<TrialDesign, 'targets' | 'conditionTargets'>> {
	const all: Levels = {};
	const some: Record<string, Levels> = {};
	for (const { metric, conditions, value } of targets)
		if (conditions === null) all[metric] = value;
		else some[conditions] = { ...some[conditions], [metric]: value };
	return { targets: all, conditionTargets: some };
}
