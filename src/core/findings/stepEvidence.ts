/** What a step of a log did beside its figures: what broke on each page, and what the worklist's rules found since. */
import { fateOf, FATES, type Fate } from './since';
import type { PageFinding } from './pageFindings';
import type { RuleId } from './finding';
import type { Regressions } from '../compare/regressions';

export interface StepFate {
	fate: Fate;
	rule: RuleId;
	resource: string;
}

export interface StepEvidence {
	condition: string;
	/** The step's arm. */
	arm: number;
	/** Of a log on a sample: the arm of the further page; null for the log's own. */
	page: number | null;
	/** Label of that page; null for the log's own. */
	pageName: string | null;
	regressions: Regressions | null;
	fates: StepFate[];
}

/** @param goodLoads of the step @returns what was gone, left, new, or not seen this time, in that order */
export function stepFates(before: readonly PageFinding[], now: readonly PageFinding[], goodLoads: number): StepFate[] {
	const seen = new Set<string>();
	const fates = [...before, ...now].flatMap(({ rule, resource }): StepFate[] => {
		const key = `${rule}/${resource.key}`;
		if (seen.has(key)) return [];
		seen.add(key);
		const fate = fateOf({ rule, resource: resource.key }, { before, now, goodLoads });
		return fate ? [{ fate, rule, resource: resource.name }] : [];
	});
	return fates.sort((a, b) => FATES.indexOf(a.fate) - FATES.indexOf(b.fate));
}
