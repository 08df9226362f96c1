/** What each part of a trial's sheet shows once it is opened. */
import type { StabilityResult } from '$core/load/requests/stability';
import { METRICS, type MetricId } from '$core/metrics/catalogue';
import { hasPages } from '$core/trial/design/kinds';
import { wordSpan } from '$core/wording/range';
import { extentOf } from '$core/stats/summary';
import type { ShiftResult } from '$core/trial/types';
import { describeStability } from '$core/wording/stability';
import { armName, comparisonsView } from '../caveats';
import { effectByAge } from '../effectByAge';
import { fatesView } from '../lateView';
import { markersOf, settlingsOf } from '../queries/notes';
import type { Trial } from '../trial';
import type { Db } from '../../../base/db/connection';
import { outlyingOf } from './head';
import { verdictsOf, type PartId } from './lines';
import { loadDots, loadRows } from './loads';
import type { SheetMaterial } from './material';
import { shownFigures, type FiguresOf } from '../shownFigures';
import { repeatsView } from './repeats';
import { worthView } from './worth';
import { currencyOfClient } from '../../clients/view';

/** The conditions and the comparison that the parts speak of, and the metric whose loads are drawn. */
export interface Chosen {
	condition: string;
	/** The variant. */
	arm: number;
	metric: MetricId;
}

/** What the address asks for, where the trial has it; the first otherwise. */
export function chosenOf({ design }: Trial, choice: { condition: string; arm: number; metric: MetricId }): Chosen {
	const comparisons = comparisonsView(design).filter(({ id }) => id !== 0);
	const conditions = design.conditions.find(({ id }) => id === choice.condition) ?? design.conditions[0]!;
	const pair = comparisons.find(({ id }) => id === choice.arm) ?? comparisons[0];
	return { condition: conditions.id, arm: pair?.id ?? 0, metric: choice.metric };
}

const evidenceOf = ({ evidence }: SheetMaterial, { condition, arm }: Chosen) =>
	evidence.arms.find((candidate) => candidate.condition === condition && candidate.arm === arm) ?? null;

/** One for each part; what it gives is all that the part's component needs beside the head. */
export const PART_VIEWS = {
	why: (material: SheetMaterial, chosen: Chosen) => ({
		why: evidenceOf(material, chosen)?.why ?? null,
		verdicts: verdictsOf(material.judgement.results, chosen.condition, chosen.arm)
	}),
	broke: (material: SheetMaterial, chosen: Chosen) => {
		const evidence = evidenceOf(material, chosen);
		return {
			broke: evidence?.broke ?? null,
			picture: evidence?.picture ?? null,
			sends:
				material.beside.sends.find(({ condition, arm }) => condition === chosen.condition && arm === chosen.arm) ?? null
		};
	},
	fairness: (material: SheetMaterial, chosen: Chosen) => ({ fairness: evidenceOf(material, chosen)?.fairness ?? null }),
	worth: (material: SheetMaterial) => ({
		worth: worthView(material),
		currency: currencyOfClient(material.db, material.trial.clientId)
	}),
	shifts: shiftsView,
	table: ({ judgement, evidence, loads, trial: { design } }: SheetMaterial) => ({
		results: withSpans(judgement.results, shownFigures(design, loads)),
		timings: evidence.arms.flatMap(({ condition, arm, timings }) =>
			timings.map((timing) => ({ ...timing, condition, armId: arm }))
		)
	}),
	frames: ({ evidence, trial: { design } }: SheetMaterial, chosen: Chosen) => {
		const pair = comparisonsView(design).find(({ id }) => id === chosen.arm);
		const isDrawn = (arm: number) => !hasPages(design.kind) || arm === chosen.arm || arm === pair?.baselineId;
		return { films: evidence.films.filter(({ condition, arm }) => condition === chosen.condition && isDrawn(arm)) };
	},
	held: ({ db, trial, beside }: SheetMaterial, chosen: Chosen) => ({
		late: beside.late,
		fates:
			fatesView(db, trial, beside.late).find(
				({ condition, arm }) => condition === chosen.condition && arm === chosen.arm
			)?.owners ?? []
	}),
	arms: ({ db, trial, beside, judgement }: SheetMaterial) => ({
		presence: beside.presence,
		markers: markersOf(db, trial.id),
		/** Medians of the largest paint where a variant is loaded cold and its baseline warm. */
		coldPaints: judgement.results.filter(
			({ metric, arm }) => metric === 'lcp' && trial.design.arms.find(({ id }) => id === arm)?.cold
		)
	}),
	method: ({ db, trial, judgement }: SheetMaterial) => ({
		settlings: settlingsView(db, trial),
		levels: [...new Set(judgement.results.map(({ level }) => level))]
	}),
	loads: (material: SheetMaterial, { metric }: Chosen) => ({
		loads: loadRows(material.trial.design, material.loads, metric),
		outlying: outlyingOf(material)
	}),
	repeats: ({ db, trial }: SheetMaterial) => ({
		repeats: repeatsView(db, trial),
		effectByAge: effectByAge(db, trial)
	})
} satisfies Record<PartId, (material: SheetMaterial, chosen: Chosen) => unknown>;

export type SheetPart<Id extends PartId> = ReturnType<(typeof PART_VIEWS)[Id]>;
export type SheetParts = { [Id in PartId]?: SheetPart<Id> };

/** Of the parts that are asked for, those that there are. */
export function openedParts(material: SheetMaterial, ids: readonly string[], chosen: Chosen): SheetParts {
	const parts = (Object.keys(PART_VIEWS) as PartId[]).filter((id) => ids.includes(id));
	return Object.fromEntries(parts.map((id) => [id, PART_VIEWS[id](material, chosen)]));
}

/** With the least and the most of the loads behind both middle figures. */
const withSpans = (results: readonly ShiftResult[], figuresOf: FiguresOf) =>
	results.map((result) => {
		const { condition, metric, baseline, arm } = result;
		const spanOf = (id: number) => wordSpan(metric, extentOf(figuresOf(condition, id, metric)));
		return { ...result, spans: { baseline: spanOf(baseline), arm: spanOf(arm) } };
	});

/** Others than metrics with a shift would be empty drawings; the one that was asked for stands all the same. */
function shiftsView(material: SheetMaterial, { metric }: Chosen) {
	const { trial, loads, judgement } = material;
	const results = judgement.results.filter((result) => result.metric === metric);
	const hasShift = (id: MetricId) => judgement.results.some((result) => result.metric === id && result.shift);
	return {
		metric,
		metrics: METRICS.filter(({ id }) => id === metric || hasShift(id)).map(({ id, name }) => ({ id, name })),
		dots: loadDots(trial.design, loads, metric, outlyingOf(material)[metric] ?? []),
		shifts: results
	};
}

export function settlingsView(db: Db, { id, design }: Trial) {
	return settlingsOf<StabilityResult>(db, id).map(({ armId, conditionId, stage, result }) => ({
		arm: armName(design, armId),
		conditionId,
		stage,
		words: describeStability(result),
		stable: result.stable,
		fetches: result.fetches
	}));
}
