/** A log of steps as its sheet and the reports show it. */
import { metricOf, type MetricId } from '$core/metrics/catalogue';
import { pageLabel } from '$core/load/requests/address';
import { samplePagesOf, stagesOf } from '$core/trial/design/comparisons';
import { awaitsReturn, isLog, MOST_STEPS, stepComparisons } from '$core/trial/design/log';
import { boardMark } from '$core/trial/judge/board';
import type { StepMark, StepRow, StepStrips, StepsView } from '$core/trial/judge/stepBoard';
import { countedLoads } from '$core/trial/judge/counted';
import type { Judgement, ShiftResult, TrialArm, TrialDesign } from '$core/trial/types';
import { boardName, boardWord } from '$core/wording/board';
import { describeReason } from '$core/wording/reasons';
import { wordAnswer } from '$core/wording/shift';
import { wordRange } from '$core/wording/range';
import { wordReturned } from '$core/wording/steps';
import { ENGLISH, type Words } from '$core/wording/words';
import type { LoadSummary } from '../loads/view';
import type { Marker } from './queries/notes';

interface Given {
	design: TrialDesign;
	judgement: Judgement;
	loads: readonly LoadSummary[];
	markers: readonly Marker[];
	/** What broke in a step against the stage before it, in words; nothing where that is not worked out. */
	brokeOf?: (arm: number) => string;
	/** What was gone, left and new, likewise. */
	foundOf?: (arm: number) => string;
	words?: Words;
}

/** Null for a trial that is no log. */
export function stepsView(given: Given): StepsView | null {
	const { design } = given;
	if (!isLog(design)) return null;
	const stages = stagesOf(design);
	return {
		planned: design.plannedSteps!,
		made: stages.length - 1,
		mayGrow: stages.length <= MOST_STEPS,
		undone: awaitsReturn(design)?.name ?? null,
		metrics: design.primary.map((metric) => metricOf(metric).short),
		pages: pagesOf(design).length > 1 ? pagesOf(design).map(({ label }) => label) : [],
		rows: stages.map((arm, stage) => rowOf(given, stages, arm, stage))
	};
}

interface SamplePage {
	label: string;
	/** The arm that is loaded in every stage; null for the log's own page. */
	arm: TrialArm | null;
}

/** The log's own page, then the others of its sample. */
function pagesOf(design: TrialDesign): SamplePage[] {
	const [start] = stagesOf(design);
	return [
		{ label: pageLabel(start!.url), arm: null },
		...samplePagesOf(design).map((arm) => ({ label: arm.page!, arm }))
	];
}

function rowOf(given: Given, stages: readonly TrialArm[], arm: TrialArm, stage: number): StepRow {
	const { design, loads, markers, brokeOf = () => '', foundOf = () => '' } = given;
	const marker = markers.find((candidate) => candidate.stage === stage);
	const ofStage = loads.filter((load) => load.stage === stage && !load.warmup);
	const own = ofStage.filter((load) => load.armId === arm.id);
	const pages = pagesOf(design);
	return {
		stage,
		arm: arm.id,
		name: arm.name,
		note: marker && marker.words !== arm.name ? marker.words : '',
		fileName: marker?.fileName ?? null,
		file: marker?.file ?? null,
		decision: arm.decision ?? 'open',
		decisionNote: arm.decisionNote ?? '',
		undoes: stages.find(({ id }) => id === arm.undoes)?.name ?? null,
		isMeasured: own.length > 0,
		broke: brokeOf(arm.id),
		found: foundOf(arm.id),
		strips: pages.flatMap((page) =>
			design.conditions.map(({ id, name }) =>
				stripsOf(given, {
					arm,
					stage,
					page: page.arm,
					condition: id,
					name: pages.length > 1 ? `${name}, ${page.label}` : name,
					own: page.arm ? ofStage.filter((load) => load.armId === page.arm!.id) : own
				})
			)
		)
	};
}

interface At {
	arm: TrialArm;
	stage: number;
	page: TrialArm | null;
	condition: string;
	name: string;
	own: readonly LoadSummary[];
}

function stripsOf({ design, judgement, words = ENGLISH }: Given, at: At): StepStrips {
	const { arm, stage, page, condition, name, own } = at;
	const compared = stepComparisons(design).find(
		(comparison) => comparison.stage === stage && comparison.against !== 'start'
	);
	const resultsOf = (results: readonly ShiftResult[] = []) =>
		design.primary.flatMap((metric) =>
			results.filter((result) => result.arm === arm.id && result.condition === condition && result.metric === metric)
		);
	const previous = resultsOf(page ? ofPage(page, judgement.samplePages?.previous) : judgement.steps);
	const start = resultsOf(page ? ofPage(page, judgement.samplePages?.start) : judgement.results);
	const names = { arm: arm.name, baseline: compared?.baseline.name ?? '' };
	const reason = previous.every(({ shift }) => !shift) ? previous.find((result) => result.reason)?.reason : null;
	return {
		key: `${condition}/${page?.id ?? ''}`,
		condition,
		name,
		previous: marksOf(previous, names),
		start: marksOf(start, { arm: arm.name, baseline: stagesOf(design)[0]!.name }),
		held: reason ? describeReason(reason, words) : '',
		returned: arm.undoes != null && previous.length ? wordReturned(previous, names, words) : '',
		figure: stage === 0 ? figureOf(design, own, condition, words) : ''
	};
}

const ofPage = ({ id }: TrialArm, results: readonly ShiftResult[] = []) => results.filter(({ page }) => page === id);

function marksOf(results: readonly ShiftResult[], names: { arm: string; baseline: string }): StepMark[] {
	return results.map((result) => {
		const mark = boardMark(result);
		return { ...mark, short: metricOf(result.metric).short, word: boardWord(mark), text: wordAnswer(result, names) };
	});
}

/** What is no comparison may be shown at any time. */
function figureOf(design: TrialDesign, own: readonly LoadSummary[], condition: string, words: Words): string {
	const counted = countedLoads(design, own).filter((load) => load.conditionId === condition);
	const metric: MetricId = design.primary[0]!;
	const figures = counted.flatMap((load) => load.figures[metric] ?? []);
	const range = wordRange(metric, figures, words);
	return range && `${boardName(metric, words)} ${range}`;
}
