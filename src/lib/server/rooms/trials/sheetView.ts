/** What the sheet of a trial shows: the same for the page and for `GET /api/trials/:id/sheet`. */
import { wordBusyMachine } from '$core/wording/calm';
import { describeConditions } from '$core/load/conditions/conditions';
import { isMetricId, type Figures, type MetricId } from '$core/metrics/catalogue';
import { comparisonsOf } from '$core/trial/design/comparisons';
import { frameAt, sharedMoments } from '$core/compare/film';
import { hasStages } from '$core/trial/design/kinds';
import { LOOKS, roundsOfNextLook } from '$core/trial/design/looks';
import { armWithoutSecrets } from '$core/trial/design/publicArm';
import { outlyingLoads } from '$core/trial/judge/outlyingLoads';
import { countedLoads } from '$core/trial/judge/counted';
import { isShown } from '$core/trial/judge/shown';
import { loadsOffSpeed } from '$core/trial/judge/speedMarks';
import type { StabilityResult } from '$core/load/requests/stability';
import { isOpenStatus, publicStatus } from '$core/trial/design/status';
import type { Judgement, TrialDesign } from '$core/trial/types';
import { returnFindings } from '$core/trial/design/returnStage';
import { wordReturn } from '$core/wording/returnStage';
import { ENGLISH } from '$core/wording/words';
import { describeStability } from '$core/wording/stability';
import { wordsIn } from '$core/wording/words';
import { worthOf } from '$core/wording/worth';
import { currencyOfClient, languageOfClient } from '../clients/clients';
import type { Db } from '../../base/db/connection';
import { isLabOff } from '../labs/labs';
import { loadsOfTrial, type LoadSummary } from '../loads/loads';
import { messageOf } from './answer';
import { evidenceView, type EvidenceView } from './evidenceView';
import { boardsOf, type PutOffOf } from './boardView';
import { fatesView } from './lateView';
import { listedAnswer } from './listedAnswer';
import { ageOf, effectByAge, startOf } from './effectByAge';
import { judgementForPage, type JudgeElsewhere } from './judgement';
import { noiseFloor } from './noiseFloors';
import { markersOf, settlingsOf } from './notes';
import { lastStage, nextStart, wholeRounds } from './places';
import { findTrial, type Trial } from './trial';
import { armName, besideFigures, caveatsView, comparisonsView } from './caveats';
import { repeatsOf } from './queries';
import { partsOf } from './partsView';
import { findRejudged } from './rejudged';
import { canBeFirst, timeLeftMs } from './timeLeft';

/** @param metric the one whose loads are drawn; the second primary one when it is none */
export async function sheetView(db: Db, trial: Trial, metric: string, judgeElsewhere?: JudgeElsewhere) {
	const loads = loadsOfTrial(db, trial.id);
	const { design } = trial;
	const judgement = await judgementForPage(db, trial, loads, judgeElsewhere);
	const evidence = evidenceView(db, trial);
	const beside = besideFigures(db, trial, loads);
	const caveats = caveatsView(design, judgement, evidence, beside);
	const outlying = outlyingLoads(
		design,
		loads.filter((load) => isShown(design, load))
	);
	const shownMetric = isMetricId(metric) ? metric : (design.primary[1] ?? design.primary[0]!);
	const currency = currencyOfClient(db, trial.clientId);
	const worth = worthView(trial, judgement, beside.putOff, currency);
	const repeats = repeatsView(db, trial);
	const isOpen = isOpenStatus(trial.status);
	return {
		where: `Trials › ${trial.question}`,
		trial: headView(db, trial, loads),
		arms: design.arms.map(armWithoutSecrets),
		comparisons: comparisonsView(design),
		conditions: conditionsView(design),
		metric: shownMetric,
		parts: partsOf({
			design,
			judgement,
			evidence,
			loads,
			outlying,
			metric: shownMetric,
			isOpen,
			isLabOff: isLabOff(db),
			late: beside.late,
			worth,
			repeats: repeats.length
		}),
		boards: boardsOf(trial.question, design, judgement, caveats, ENGLISH, beside.putOff),
		moments: momentsView(evidence),
		clientAnswer: clientAnswer(db, trial, judgement, beside.putOff),
		excludedAnswer: excludedView(trial, judgement, loads, beside.putOff),
		busyMachine: busyMachineView(design, loads),
		returned: returnView(design, judgement),
		worth,
		currency,
		evidence: evidence.arms.length || evidence.films.length ? evidence : null,
		evidencePending: loads.some((load) => !load.warmup) && evidence.pending,
		settlings: settlingsView(db, trial),
		markers: markersOf(db, trial.id),
		late: beside.late,
		fates: fatesView(db, trial, beside.late),
		presence: beside.presence,
		sends: beside.sends,
		noise: noiseView(db, trial),
		repeats,
		effectByAge: repeats.length ? effectByAge(db, trial) : [],
		judgement,
		outlying,
		loads: loadsView(design, loads, shownMetric)
	};
}

export type SheetView = Awaited<ReturnType<typeof sheetView>>;

function conditionsView({ conditions }: TrialDesign) {
	return conditions.map((one) => ({
		id: one.id,
		name: one.name,
		summary: one.summary,
		detail: describeConditions(one)
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
		steps: design.steps?.length ?? 0,
		nextStage: hasStages(design.kind) ? (compared[stagesRun]?.name ?? null) : null,
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

/** The answer in the client's own language; null where that is English. */
function clientAnswer(db: Db, { clientId, design, question }: Trial, judgement: Judgement, putOffOf: PutOffOf) {
	const language = languageOfClient(db, clientId);
	if (language === 'en') return null;
	return { language, boards: boardsOf(question, design, judgement, [], wordsIn(language), putOffOf) };
}

/** What the answer would be without the loads that the analyst excluded; null when none is. */
function excludedView(
	{ design, question }: Trial,
	{ withoutExcluded }: Judgement,
	loads: readonly LoadSummary[],
	putOffOf: PutOffOf
) {
	if (!withoutExcluded) return null;
	const boards = boardsOf(question, design, { results: withoutExcluded }, [], ENGLISH, putOffOf);
	return {
		answers: boards.flatMap(({ condition, name, answers }) =>
			answers.map(({ arm, sentence }) => ({ key: `${condition}/${arm}`, conditionName: name, sentence }))
		),
		loads: loads
			.filter((load) => load.excluded !== null && !load.warmup)
			.map(({ id, armId, round, excluded }) => ({ id, arm: armName(design, armId), round, reason: excluded! }))
	};
}

function worthView({ design }: Trial, { results }: Judgement, putOffOf: PutOffOf, currency: string) {
	return design.conditions.flatMap(({ id: condition }) =>
		comparisonsOf(design).map(({ arm, baseline }) => {
			const own = results.filter((result) => result.condition === condition);
			const gains = own.filter((result) => result.arm === arm.id);
			const putOff = putOffOf(condition, arm.id, gains).map(({ metric }) => metric);
			return { condition, arm: arm.id, ...worthOf(own, baseline, arm, { putOff, currency }) };
		})
	);
}

function settlingsView(db: Db, { id, design }: Trial) {
	return settlingsOf<StabilityResult>(db, id).map(({ armId, conditionId, stage, result }) => ({
		arm: armName(design, armId),
		conditionId,
		stage,
		words: describeStability(result),
		stable: result.stable,
		fetches: result.fetches
	}));
}

/** Whether the effects went when the change was taken back, by conditions; empty without such a stage. */
function returnView(design: TrialDesign, { results }: Judgement) {
	const findings = returnFindings(design, results);
	return design.conditions.flatMap(({ id, name }) => {
		const words = wordReturn(findings.filter(({ condition }) => condition === id));
		return words ? [{ name, words }] : [];
	});
}

/** What must be known of a machine that was too busy; null when it was not. */
function busyMachineView({ countsDisturbed }: TrialDesign, loads: readonly LoadSummary[]): string | null {
	if (!countsDisturbed) return null;
	const rounds = loads.filter((load) => !load.warmup);
	return wordBusyMachine(rounds.filter((load) => load.disturbed).length, rounds.length);
}

function noiseView(db: Db, { id, design }: Trial) {
	const known = design.conditions.flatMap((conditions) => {
		const floor = noiseFloor(db, conditions, id);
		return floor ? [[conditions.id, { trial: floor.trial, floors: floor.floors }] as const] : [];
	});
	return Object.fromEntries(known);
}

/** The trial that this one repeats, and its other repeats. */
function repeatsView(db: Db, trial: Trial) {
	const first = trial.repeatOf === null ? [] : [trial.repeatOf];
	const ids = [...first, ...repeatsOf(db, trial.repeatOf ?? trial.id)].filter((id) => id !== trial.id);
	const origin = findTrial(db, trial.repeatOf ?? trial.id);
	return ids.map((id) => {
		const other = findTrial(db, id)!;
		const answer = other.status === 'done' ? listedAnswer(db, other) : null;
		return { id, at: startOf(other), age: ageOf(other, origin), status: publicStatus(other.status), answer };
	});
}

/** @param drawn the metric whose loads are drawn: beside those to decide on, the only figures that a sheet shows */
function loadsView(design: TrialDesign, loads: readonly LoadSummary[], drawn: MetricId) {
	const metrics = [...new Set([...design.primary, drawn])];
	const figuresOf = ({ figures }: LoadSummary): Partial<Figures> =>
		Object.fromEntries(metrics.map((metric) => [metric, figures[metric]]));
	const off = loadsOffSpeed(loads);
	const counted = new Set(countedLoads(design, loads));
	return loads.map((load) => ({
		id: load.id,
		armId: load.armId,
		conditionId: load.conditionId,
		stage: load.stage,
		round: load.round,
		warmup: load.warmup,
		status: load.status,
		capped: load.capped,
		reason: load.reason,
		startedAt: load.startedAt,
		labMs: load.labMs,
		excluded: load.excluded,
		disturbed: load.disturbed,
		/** Its figures enter the answer. */
		counts: counted.has(load),
		failedStep: load.failedStep,
		source: load.source,
		// Figures beside each other between looks would be an answer; each load can be opened all the same.
		figures: isShown(design, load) ? figuresOf(load) : {},
		speedOff: off.has(load.id)
	}));
}
