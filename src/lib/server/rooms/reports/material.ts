/** What the blocks of a report are made of: each trial read once. */
import { comparisonsOf } from '$core/trial/design/comparisons';
import { boardName } from '$core/wording/board';
import { armWithoutSecrets } from '$core/trial/design/publicArm';
import { NOT_SHOWN, withoutSecrets } from '$core/load/conditions/conditions';
import type { Judgement, ShiftResult, TrialDesign } from '$core/trial/types';
import { formatRef, parseRef, type FigurePart } from '$core/report/figureRef';
import type { ShownFigure } from '$core/report/richText';
import type { Cited, TrialEvidence } from '$core/report/view';
import { aboutFigure, goneFigure, wordFigure } from '$core/wording/report';
import { conditionsIn, type ReportWords } from '$core/wording/reportWords';
import type { Step } from '$core/load/journey/steps';
import type { Db } from '../../base/db/connection';
import { findConditions } from '../conditions/saved';
import { besideFigures, caveatsView } from '../trials/caveats';
import { evidenceView } from '../trials/evidenceView';
import { findEvidence, type Evidence } from '../trials/evidence';
import { judgementOf } from '../trials/judgement';
import { putOffFrom } from '../trials/lateView';
import { boardsOf, type ConditionsBoard } from '../trials/boardView';
import type { PutOffOf } from '$core/compare/late/putOff';
import { findTrial, type Trial } from '../trials/trial';
import { findClient } from '../clients/view';
import { loadsOfTrial, type LoadSummary } from '../loads/view';
import { lateSeenOf } from '../trials/view';

export interface TrialMaterial {
	trial: Trial;
	design: TrialDesign;
	loads: LoadSummary[];
	judgement: Judgement;
	/** Null while it is being worked out. */
	evidence: Evidence | null;
	putOffOf: PutOffOf;
	boards: ConditionsBoard[];
}

export class Material {
	/** ISO 4217, of prices. */
	readonly currency: string;
	#trials = new Map<number, TrialMaterial | null>();

	constructor(
		readonly db: Db,
		readonly words: ReportWords,
		/** Whose report it is; null for nobody's. */
		readonly clientId: number | null
	) {
		this.currency = (clientId === null ? null : findClient(db, clientId))?.currency ?? 'EUR';
	}

	/** What saved conditions are called. */
	nameOfConditions(id: string): string {
		return conditionsIn(this.words, findConditions(this.db, id)?.name ?? id);
	}

	/** Null for a trial that is gone. */
	trial(id: number): TrialMaterial | null {
		const cached = this.#trials.get(id);
		if (cached !== undefined) return cached;
		const trial = findTrial(this.db, id);
		const material = trial && this.#read(trial);
		this.#trials.set(id, material);
		return material;
	}

	#read(trial: Trial): TrialMaterial {
		const { db } = this;
		const loads = loadsOfTrial(db, trial.id);
		const judgement = judgementOf(db, trial, loads);
		const conditions = trial.design.conditions.map((condition) => ({
			...condition,
			name: conditionsIn(this.words, condition.name)
		}));
		const design: TrialDesign = { ...trial.design, conditions };
		const putOffOf = putOffFrom(design, lateSeenOf(db, trial.id));
		const evidenceWords = evidenceView(db, trial);
		const caveats = caveatsView(design, {
			judgement,
			evidence: evidenceWords,
			returnType: besideFigures(db, trial, loads, this.words),
			words: this.words
		});
		const { words, currency } = this;
		const boards = boardsOf(trial.question, { design, judgement, caveats, words, putOffOf, currency });
		const stored = findEvidence(db, trial.id);
		const evidence = stored && !stored.isOld ? stored.body : null;
		return { trial, design, loads, judgement, evidence, putOffOf, boards };
	}

	/** A figure in a sentence. */
	figure(ref: string): ShownFigure {
		const parsed = parseRef(ref);
		const material = parsed && this.trial(parsed.trial);
		const result = material?.judgement.results.find(
			({ condition, metric, arm }) =>
				condition === parsed!.condition && metric === parsed!.metric && arm === parsed!.arm
		);
		if (!parsed || !material || !result?.shift) return goneFigure(ref, this.words);
		// A gain that comes back is none: no sentence may call it one.
		if (parsed.part === 'verdict' && isPutOff(material, result)) return goneFigure(ref, this.words);
		return {
			ref,
			text: wordFigure(result, parsed.part, this.words),
			about: aboutFigure(result, parsed.part, namesOf(material.design, result), this.words),
			isMissing: false
		};
	}

	/** A figure where it stands in a table or a chart. */
	cite(trial: number, result: ShiftResult, part: FigurePart): Cited {
		const { condition, metric, arm } = result;
		return { ref: formatRef({ trial, condition, metric, arm, part }), text: wordFigure(result, part, this.words) };
	}

	/** Loads and rules behind the figures of the trials that were read. */
	evidence(): TrialEvidence[] {
		return [...this.#trials.values()].flatMap((material) => (material ? [evidenceOf(material)] : []));
	}
}

/** What is typed may be a name, or a password. */
const untyped = (steps: readonly Step[]): Step[] =>
	steps.map((step) => ('type' in step ? { ...step, type: NOT_SHOWN } : step));

function evidenceOf({ trial, design, loads, judgement }: TrialMaterial): TrialEvidence {
	return {
		id: trial.id,
		question: trial.question,
		design: {
			...design,
			// What the variants run on is between the agency and its client's own staff.
			arms: design.arms.map((arm) => ({
				...armWithoutSecrets(arm),
				setup: null,
				cold: null,
				...(arm.steps ? { steps: untyped(arm.steps) } : {})
			})),
			conditions: design.conditions.map(withoutSecrets),
			steps: design.steps && untyped(design.steps),
			mustSend: []
		},
		loads: loads.map((load) => ({
			id: load.id,
			armId: load.armId,
			conditionId: load.conditionId,
			stage: load.stage,
			round: load.round,
			warmup: load.warmup,
			status: load.status,
			disturbed: load.disturbed,
			excluded: load.excluded,
			...(load.checks ? { checks: load.checks } : {}),
			figures: load.figures,
			startedAt: load.startedAt,
			url: load.url
		})),
		results: judgement.results
	};
}

/** Names of what a result compares. */
export function namesOf(design: TrialDesign, { condition, arm, baseline }: ShiftResult) {
	const armName = (id: number) => design.arms.find((candidate) => candidate.id === id)?.name ?? '';
	const pair = comparisonsOf(design).find((candidate) => candidate.arm.id === arm);
	return {
		arm: pair?.arm.name ?? armName(arm),
		baseline: pair?.baseline.name ?? armName(baseline),
		conditions: design.conditions.find(({ id }) => id === condition)?.name ?? condition
	};
}

const isPutOff = ({ putOffOf }: TrialMaterial, result: ShiftResult) =>
	putOffOf(result.condition, result.arm, [result]).length > 0;

/** A figure that can stand in a sentence: for choosing one. */
export interface FigureChoice {
	ref: string;
	/** "Phone: largest paint of “With chat”" */
	name: string;
	text: string;
}

/** What the trial decides on, part by part. */
export function figureChoices(material: Material, ofTrial: TrialMaterial): FigureChoice[] {
	const { trial, design, judgement } = ofTrial;
	const printed = judgement.results.filter(({ primary, shift }) => primary && shift);
	return printed.flatMap((result) => {
		const names = namesOf(design, result);
		const metric = boardName(result.metric, material.words);
		const parts = ['shift', 'variant', 'baseline', ...(isPutOff(ofTrial, result) ? [] : ['verdict'])] as FigurePart[];
		return parts.map((part) => {
			const { ref, text } = material.cite(trial.id, result, part);
			const whose = part === 'baseline' ? names.baseline : names.arm;
			return { ref, text, name: `${names.conditions} · ${metric} · ${whose} · ${part}` };
		});
	});
}
