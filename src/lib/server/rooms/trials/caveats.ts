/** What a verdict must not be read without: what broke, what comes back later, what else differs. */
import { restsOn } from '$core/compare/fairness';
import { ALL_PAGES } from '$core/trial/design/comparisons';
import { explainedPairs } from '$core/trial/design/log';
import { hasPages, isSamePage } from '$core/trial/design/kinds';
import type { Judgement, TrialDesign } from '$core/trial/types';
import { wordLate } from '$core/wording/held';
import { describeRegressions } from '$core/wording/regressions';
import { ENGLISH, type EvidenceWords } from '$core/wording/words';
import type { Db } from '../../base/db/connection';
import type { EvidenceView } from './evidenceView';
import { lateLoadsOf, putOffFrom } from './lateView';
import { missedWords, presenceView, sendsView } from './seen';
import type { Trial } from './trial';
import type { LoadSummary } from '../loads/view';

/** What is compared with what, as the sheet names it. */
export function comparisonsView(design: TrialDesign) {
	const comparisons = explainedPairs(design);
	const views = comparisons.map(({ arm, baseline }) => ({
		id: arm.id,
		name: arm.page ? `${arm.page}: ${arm.name}` : arm.name,
		baseline: baseline.name,
		baselineId: baseline.id,
		page: arm.page ?? null
	}));
	if (!hasPages(design.kind) || comparisons.length < 2) return views;
	const name = `All ${comparisons.length} pages`;
	return [{ id: ALL_PAGES, name, baseline: comparisons[0]!.baseline.name, baselineId: 0, page: null }, ...views];
}

/** What the answer must not be read without: what comes late, what took effect, what is still sent. */
export function besideFigures(
	db: Db,
	{ id, design }: Trial,
	loads: readonly LoadSummary[],
	words: EvidenceWords = ENGLISH
) {
	const late = lateLoadsOf(db, id);
	const presence = presenceView(design, loads);
	const sends = sendsView(db, design, loads, late);
	const missed: MissedOf = (condition, arm) =>
		missedWords(condition, { arm: { id: arm, name: armName(design, arm) }, presence, sends, words });
	return { late, putOff: putOffFrom(design, late), presence, sends, missed };
}

export const armName = ({ arms }: TrialDesign, id: number) => arms.find((arm) => arm.id === id)?.name ?? '';

/** What a verdict on a variant must not be read without: checks not met, requests that no longer leave. */
type MissedOf = (condition: string, arm: number) => string;

/** "Own CDN" as it stands within a sentence: "own CDN". */
const inSentence = (name: string) => (/^[A-Z][A-Z]/.test(name) ? name : name.charAt(0).toLowerCase() + name.slice(1));

/** What stands beside the verdicts on each variant, by conditions. */
export function caveatsView(
	design: TrialDesign,
	{
		judgement,
		evidence,
		returnType: { late, missed },
		words = ENGLISH
	}: {
		judgement: Pick<Judgement, 'results'>;
		evidence: EvidenceView;
		returnType: Pick<ReturnType<typeof besideFigures>, 'late' | 'missed'>;
		words?: EvidenceWords;
	}
) {
	const judged = comparisonsView(design).filter(({ id }) => judgement.results.some((result) => result.arm === id));
	return design.conditions.flatMap(({ id: condition }) =>
		judged.map(({ id: arm }) => {
			const found = evidence.arms.find((candidate) => candidate.condition === condition && candidate.arm === arm);
			const own = late.filter((candidate) => candidate.arm === arm && candidate.condition === condition);
			const name = armName(design, arm);
			return {
				condition,
				arm,
				broke: [found?.broke.broken ? describeRegressions(found.broke, name, words) : '', missed(condition, arm)]
					.filter(Boolean)
					.join(' '),
				restsOn:
					found && !isSamePage(design.kind)
						? restsOn(found.fairness).map(({ id }) => inSentence(words.say(`fair.${id}`)))
						: [],
				held: own
					.map(({ facts }) => wordLate(facts, name, words))
					.filter(Boolean)
					.join(' ')
			};
		})
	);
}
