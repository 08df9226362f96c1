/** What the first screen of a trial's sheet shows: the question, its answer, and each part in its one line. */
import { wordBusyMachine } from '$core/wording/calm';
import { describeConditions } from '$core/load/conditions/conditions';
import { frameAt, sharedMoments } from '$core/compare/film';
import { isMetricId, type MetricId } from '$core/metrics/catalogue';
import { asksForBest, hasStages } from '$core/trial/design/kinds';
import { isLog } from '$core/trial/design/log';
import { decisive, LOOKS, roundsOfNextLook } from '$core/trial/design/looks';
import { armWithoutSecrets } from '$core/trial/design/publicArm';
import { returnFindings } from '$core/trial/design/returnStage';
import { isOpenStatus, publicStatus } from '$core/trial/design/status';
import { suggestedRounds } from '$core/trial/judge/moreRounds';
import { outlyingLoads } from '$core/trial/judge/outlyingLoads';
import { isShown } from '$core/trial/judge/shown';
import type { Judgement, TrialDesign } from '$core/trial/types';
import { regressionParts } from '$core/wording/regressions';
import { wordReturn } from '$core/wording/returnStage';
import { wordStepFates } from '$core/wording/findings';
import { ENGLISH } from '$core/wording/words';
import type { Db } from '../../../base/db/connection';
import { isLabOff } from '../../labs/labs';
import { messageOf } from '../answer';
import { boardsOf } from '../boardView';
import type { PutOffOf } from '$core/compare/late/putOff';
import { bestView } from '../bestView';
import { markersOf } from '../queries/notes';
import { shownFigures } from '../shownFigures';
import { stepsView } from '../stepsView';
import { sweepView } from '../sweepView';
import { armName, caveatsView, comparisonsView } from '../caveats';
import type { EvidenceView } from '../evidenceView';
import { noiseFloor } from '../noiseFloors';
import { lastStage, nextStart, wholeRounds } from '../queries/slots';
import { findRejudged } from '../queries/rejudged';
import { canBeFirst, timeLeftMs } from '../timeLeft';
import type { Trial } from '../trial';
import { partLines } from './lines';
import type { SheetMaterial } from './material';
import { repeatIds } from './repeats';
import { worthView } from './worth';
import type { LoadSummary } from '../../loads/view';
import { currencyOfClient } from '../../clients/view';

/** The metric whose loads are drawn: the one that was asked for, else the second that the trial decides on. */
export const drawnMetric = ({ primary }: TrialDesign, metricParam: string): MetricId =>
	isMetricId(metricParam) ? metricParam : (primary[1] ?? primary[0]!);

/** Loads far from the others of their variant, by metric. */
export const outlyingOf = ({ trial: { design }, loads }: SheetMaterial) =>
	outlyingLoads(
		design,
		loads.filter((load) => isShown(design, load))
	);

/**
 * @param metric the one whose loads are drawn; see {@link drawnMetric}
 * @param against the candidate that the boards hold all others against, where it is asked which is best
 */
export function sheetHead(material: SheetMaterial, metric: string, against = 0) {
	const { db, trial, loads, judgement, evidence, beside } = material;
	const { design } = trial;
	const currency = currencyOfClient(db, trial.clientId);
	const heldAgainst = againstOf(trial, against);
	const caveats = caveatsView(design, { judgement, evidence, returnType: beside });
	const boards = boardsOf(trial.question, {
		design,
		judgement,
		caveats,
		putOffOf: beside.putOff,
		currency,
		figuresOf: shownFigures(design, loads),
		...(heldAgainst === null ? {} : { against: heldAgainst })
	});
	return {
		where: `Trials › ${trial.question}`,
		trial: headView(db, trial, loads),
		arms: design.arms.map(armWithoutSecrets),
		comparisons: comparisonsView(design),
		conditions: conditionsView(design),
		parts: partLines({
			design,
			judgement,
			evidence,
			loads,
			outlying: outlyingOf(material),
			metric: drawnMetric(design, metric),
			isOpen: isOpenStatus(trial.status),
			isLabOff: isLabOff(db),
			late: beside.late,
			worth: worthView(material),
			repeats: repeatIds(db, trial).length
		}),
		boards,
		sweep: sweepView(design, boards),
		best: bestView({ design, judgement, putOffOf: beside.putOff, currency }, null)?.answer ?? null,
		against: heldAgainst,
		steps: stepsView({
			design,
			judgement,
			loads,
			markers: markersOf(db, trial.id),
			brokeOf: brokeOf(evidence),
			foundOf: foundOf(evidence)
		}),
		moments: momentsView(evidence),
		excludedAnswer: excludedView(trial, judgement, loads, beside.putOff),
		busyMachine: busyMachineView(design, loads),
		returned: returnView(design, judgement),
		evidencePending: loads.some((load) => !load.warmup) && evidence.pending,
		noise: noiseView(db, trial),
		answer: standView(trial, judgement, loads)
	};
}

export type SheetHead = ReturnType<typeof sheetHead>;

/** The candidate that the address names, else the first; null where no candidates are asked for. */
function againstOf({ design }: Trial, asked: number): number | null {
	if (!asksForBest(design)) return null;
	return (design.arms.find(({ id }) => id === asked) ?? design.arms.find((arm) => arm.baseline)!).id;
}

/** What a step broke, on any page under any of the conditions. */
const brokeOf =
	({ stepEvidence }: EvidenceView) =>
	(arm: number): string => {
		const parts = stepEvidence.flatMap(({ arm: own, regressions, pageName }) =>
			own === arm && regressions?.broken
				? regressionParts(regressions).map((part) => (pageName ? `${part} (${pageName})` : part))
				: []
		);
		return parts.length ? ENGLISH.say('step.broke', { parts: [...new Set(parts)].join(', ') }) : '';
	};

/** What the worklist's rules found gone, left and new since the stage before. */
const foundOf =
	({ stepEvidence }: EvidenceView) =>
	(arm: number): string =>
		wordStepFates(stepEvidence.filter((own) => own.arm === arm).flatMap(({ fates }) => fates));

/** How far the answer is. */
function standView({ status, design }: Trial, judgement: Judgement, loads: readonly LoadSummary[]) {
	return {
		loads: loads.length,
		hasLoads: loads.some((load) => !load.warmup),
		hasAnswer: judgement.results.length > 0,
		/** Of the last look. */
		rounds: judgement.looks.at(-1)?.rounds ?? 0,
		recipe: judgement.recipe,
		spread: judgement.spread,
		failures: judgement.health.filter(({ failed }) => failed > 0),
		/** Rounds that would probably decide what is open; null where none would. */
		suggestedRounds: publicStatus(status) === 'done' ? suggestedRounds(design.kind, decisive(judgement)) : null
	};
}

function conditionsView({ conditions }: TrialDesign) {
	return conditions.map((condition) => ({
		id: condition.id,
		name: condition.name,
		summary: condition.summary,
		detail: describeConditions(condition)
	}));
}

function headView(db: Db, trial: Trial, loads: readonly LoadSummary[]) {
	const { design } = trial;
	const stagesRun = hasStages(design.kind) ? new Set(loads.map((load) => load.stage)).size : 0;
	const compared = design.arms.filter((arm) => !arm.reference);
	return {
		canRepeatByAge: !hasStages(trial.design.kind),
		id: trial.id,
		question: trial.question,
		clientName: trial.clientName,
		status: publicStatus(trial.status),
		message: messageOf(db, trial),
		paused: trial.status === 'paused',
		progress: trial.progress,
		startedAt: trial.startedAt,
		endedAt: trial.endedAt,
		unread: trial.endedAt !== null && trial.readAt === null,
		timeLeftMs: timeLeftMs(db, trial),
		canBeFirst: canBeFirst(db, trial),
		begins: trial.status === 'queued' ? nextStart(db, trial.id) : null,
		kind: design.kind,
		aim: design.aim ?? 'baseline',
		adaptive: design.adaptive ?? false,
		added: design.added ?? 0,
		looks: design.looks ?? [],
		planned: LOOKS as readonly number[],
		nextLook: roundsOfNextLook(design),
		wholeRounds: wholeRounds(db, trial.id, Math.max(0, lastStage(db, trial.id))),
		rejudged: findRejudged(db, trial.id),
		rounds: design.rounds,
		warmups: design.warmups,
		seed: design.seed,
		primary: design.primary,
		intended: design.intended ?? [],
		steps: Math.max(design.steps?.length ?? 0, ...design.arms.map((arm) => arm.steps?.length ?? 0)),
		nextStage: hasStages(design.kind) ? (compared[stagesRun]?.name ?? null) : null,
		isLog: isLog(design),
		stagesRun
	};
}

/** What each arm showed at three moments of the conditions. */
function momentsView({ films }: EvidenceView) {
	const conditions = [...new Set(films.map((film) => film.condition))];
	return conditions.map((condition) => {
		const own = films.filter((film) => film.condition === condition);
		const moments = sharedMoments(own);
		return {
			condition,
			moments,
			arms: own.map((film) => ({
				arm: film.arm,
				load: film.load,
				width: film.width,
				height: film.height,
				frames: moments.map(({ atMs }) => frameAt(film, atMs))
			}))
		};
	});
}

/** What the answer would be without the loads that the analyst excluded; null when none is. */
function excludedView(
	{ design, question }: Trial,
	{ withoutExcluded }: Judgement,
	loads: readonly LoadSummary[],
	putOffOf: PutOffOf
) {
	if (!withoutExcluded) return null;
	const boards = boardsOf(question, {
		design,
		judgement: { results: withoutExcluded },
		caveats: [],
		words: ENGLISH,
		putOffOf
	});
	return {
		answers: boards.flatMap(({ condition, name, answers }) =>
			answers.map(({ arm, sentence }) => ({ key: `${condition}/${arm}`, conditionName: name, sentence }))
		),
		loads: loads
			.filter((load) => load.excluded !== null && !load.warmup)
			.map(({ id, armId, round, excluded }) => ({ id, arm: armName(design, armId), round, reason: excluded! }))
	};
}

/** What must be known of a machine that was too busy; null when it was not. */
function busyMachineView({ countsDisturbed }: TrialDesign, loads: readonly LoadSummary[]): string | null {
	if (!countsDisturbed) return null;
	const rounds = loads.filter((load) => !load.warmup);
	return wordBusyMachine(rounds.filter((load) => load.disturbed).length, rounds.length);
}

/** Whether the effects went when the change was taken back, by conditions; empty without such a stage. */
function returnView(design: TrialDesign, { results }: Judgement) {
	const findings = returnFindings(design, results);
	return design.conditions.flatMap(({ id, name }) => {
		const words = wordReturn(findings.filter(({ condition }) => condition === id));
		return words ? [{ name, words }] : [];
	});
}

function noiseView(db: Db, { id, design }: Trial) {
	const measured = design.conditions.flatMap((conditions) => {
		const floor = noiseFloor(db, conditions, id);
		return floor ? [[conditions.id, { trial: floor.trial, floors: floor.floors }] as const] : [];
	});
	return Object.fromEntries(measured);
}
