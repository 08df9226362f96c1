/** A stage in which the change is taken back (A, B, A): was it the change that did it? */
import type { MetricId } from '../../metrics/catalogue';
import { stagesOf } from './comparisons';
import type { ShiftResult, TrialDesign } from '../types';

/**
 * `gone`: the effect went with the change. `stays`: it is still there, so that something else may have made it. `open`:
 * the return is not decided.
 */
export type ReturnCode = 'gone' | 'stays' | 'open';

export interface ReturnFinding {
	condition: string;
	metric: MetricId;
	/** Verdict on the stage before the change was taken back. */
	effect: 'better' | 'worse';
	code: ReturnCode;
}

/** One finding for each decided effect of the stage before the return, once both have been judged. */
export function returnFindings(
	design: Pick<TrialDesign, 'kind' | 'arms' | 'returnStage'>,
	results: readonly ShiftResult[]
): ReturnFinding[] {
	const { returnStage } = design;
	if (returnStage == null) return [];
	const stages = stagesOf(design);
	const [changed, back] = [stages[returnStage - 1], stages[returnStage]];
	const isJudged = (arm: number | undefined) => results.some((result) => result.arm === arm);
	if (!changed || !back || changed.baseline || !isJudged(back.id)) return [];
	return results.flatMap((effect): ReturnFinding[] => {
		if (!effect.primary || effect.arm !== changed.id) return [];
		if (effect.verdict !== 'better' && effect.verdict !== 'worse') return [];
		const after = results.find(
			({ arm, condition, metric }) => arm === back.id && condition === effect.condition && metric === effect.metric
		);
		if (!after) return [];
		const { condition, metric, verdict } = effect;
		return [{ condition, metric, effect: verdict, code: codeOf(verdict, after.verdict) }];
	});
}

function codeOf(effect: 'better' | 'worse', back: ShiftResult['verdict']): ReturnCode {
	if (back === 'same') return 'gone';
	return back === effect ? 'stays' : 'open';
}
