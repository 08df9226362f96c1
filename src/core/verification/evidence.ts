/** Figures, verdicts and tables of a bundle, computed anew from its loads. */
import { harOf } from '../formats/har';
import { loadsCsv } from '../formats/csv';
import { parseRecord } from '../load/record/parseRecord';
import type { LoadRecord } from '../load/record/record';
import { cumulativeLayoutShift, fullyLoaded, totalBlockingTime } from '../load/vitals/vitals';
import { speedIndex, visuallyComplete } from '../load/vitals/visual';
import { weightsOf } from '../load/requests/weights';
import { METRIC_IDS, type Figures, type MetricId } from '../metrics/catalogue';
import { LAB_RECIPE, scoreOf } from '../metrics/score';
import { judge } from '../trial/judge/judge';
import type { ShiftResult } from '../trial/types';
import { figuresCsv, FIGURES, harFile, loadFile, loadsFile, trialFile, type Manifest } from '../report/bundle';
import type { TrialEvidence } from '../report/view';
import type { Files, Rules } from './tools';
import { fault, isSame, isSameFigure, type Fault } from './faults';
import { textOf } from './sums';

/** What judging makes of the loads alone, whatever its rules. */
const OF_LOADS = new Set<keyof ShiftResult>(['baselineMedian', 'armMedian']);

export class EvidenceCheck {
	readonly faults: Fault[] = [];
	figures = 0;
	/** What today's rules of judgement would say otherwise. */
	readonly today: string[] = [];
	readonly records = new Map<number, LoadRecord>();

	/** @param otherRules versions that are not today's */
	constructor(
		private readonly files: Files,
		private readonly manifest: Manifest,
		private readonly otherRules: readonly Rules[]
	) {}

	/** @returns the trials as they follow from their loads */
	run(trials: readonly TrialEvidence[]): TrialEvidence[] {
		const computed = trials.map((trial) => this.#trial(trial));
		this.#table(FIGURES, figuresCsv(computed));
		if (this.manifest.format === 1) return computed;
		for (const trial of computed)
			this.#table(
				loadsFile(trial.id),
				loadsCsv(
					trial.design.arms,
					trial.loads.map((load) => ({ ...load, reason: null, capped: false }))
				)
			);
		return computed;
	}

	get #isJudgedOtherwise(): boolean {
		return this.otherRules.some((rules) => rules.of === 'judge');
	}

	#trial(trial: TrialEvidence): TrialEvidence {
		const file = trialFile(trial.id);
		const loads = trial.loads.map((load) => {
			const record = this.#record(load.id);
			if (!record) return load;
			this.#compareFigures(file, `load ${load.id}`, load.figures, record.figures);
			this.#compareLoad(trial, load, record);
			return { ...load, figures: record.figures };
		});
		const { results } = judge(trial.design, loads);
		const keyOf = ({ condition, metric, arm }: ShiftResult) => `${condition}/${metric}/${arm}`;
		const own = new Map(results.map((result) => [keyOf(result), result]));
		for (const result of trial.results) {
			this.#result(file, keyOf(result), result, own.get(keyOf(result)));
			own.delete(keyOf(result));
		}
		for (const key of own.keys()) this.faults.push(fault('figure', file, `the comparison ${key} is missing`));
		return { ...trial, loads, results: this.#isJudgedOtherwise ? trial.results : results };
	}

	/** What the trial says of a load beside its figures is what its record says. */
	#compareLoad({ id, design }: TrialEvidence, load: TrialEvidence['loads'][number], record: LoadRecord): void {
		if (this.manifest.format === 1) return;
		const conditions = design.conditions.find((candidate) => candidate.id === load.conditionId);
		const arm = design.arms.find((candidate) => candidate.id === load.armId);
		const places = [arm?.url, record.url].map((url) => (url && URL.canParse(url) ? pageOf(url) : url));
		const checks: [what: string, found: unknown, expected: unknown][] = [
			['address', load.url, record.url],
			['start', load.startedAt, record.startedAt],
			['state', load.status, record.status],
			['whether it was disturbed', load.disturbed, record.environment.calm?.disturbed ?? false],
			['page of its variant', places[0], places[1]],
			['network', conditions?.network, record.conditions?.network],
			['device', conditions?.device, record.conditions?.device]
		];
		for (const [what, found, expected] of checks) {
			this.figures++;
			if (isSame(found, expected)) continue;
			const texts = [found, expected].map((value) => JSON.stringify(value) ?? '');
			this.faults.push(fault('figure', trialFile(id), `${what} of load ${load.id}`, texts[0], texts[1]));
		}
	}

	#record(id: number): LoadRecord | null {
		const file = loadFile(id);
		const bytes = this.files.get(file);
		if (!bytes) {
			this.faults.push(fault('missing', file, 'not there'));
			return null;
		}
		try {
			const record = parseRecord(JSON.parse(textOf(bytes)));
			const figures = { ...record.figures, ...recomputed(record) };
			this.#compareFigures(file, 'the record', record.figures, figures);
			this.#har(id, record);
			this.records.set(id, record);
			return { ...record, figures };
		} catch (error) {
			this.faults.push(fault('unreadable', file, (error as Error).message));
			return null;
		}
	}

	#har(id: number, record: LoadRecord): void {
		const bytes = this.files.get(harFile(id));
		if (!bytes || this.manifest.format === 1) return;
		this.figures++;
		try {
			if (isSame(JSON.parse(textOf(bytes)), harOf(record, this.manifest.zafra ?? ''))) return;
			this.faults.push(fault('figure', harFile(id), 'is not the HAR of its load'));
		} catch {
			this.faults.push(fault('unreadable', harFile(id), 'no JSON'));
		}
	}

	#compareFigures(
		file: string,
		whose: string,
		found: Readonly<Partial<Figures>>,
		expected: Readonly<Partial<Figures>>
	): void {
		for (const metric of METRIC_IDS) {
			this.figures++;
			if (isSameFigure(found[metric], expected[metric])) continue;
			this.faults.push(fault('figure', file, `${metric} of ${whose}`, String(found[metric]), String(expected[metric])));
		}
	}

	/** Every part: shift, interval, margin, level, target, verdict. */
	#result(file: string, key: string, found: ShiftResult, expected: ShiftResult | undefined): void {
		const parts = new Set([...Object.keys(found), ...Object.keys(expected ?? {})]) as Set<keyof ShiftResult>;
		for (const part of parts) {
			this.figures++;
			if (isSame(found[part], expected?.[part])) continue;
			const [is, should] = [found[part], expected?.[part]].map((value) => JSON.stringify(value) ?? 'nothing');
			const what = `${part} of ${key}`;
			if (this.#isJudgedOtherwise && !OF_LOADS.has(part)) this.today.push(`${file}: ${what}: ${should} for ${is}`);
			else this.faults.push(fault('figure', file, what, is, should));
		}
	}

	#table(file: string, text: string): void {
		const bytes = this.files.get(file);
		if (!bytes) return;
		const [found, expected] = [textOf(bytes), text].map((table) => table.split('\r\n'));
		expected!.forEach((line, i) => {
			if (found![i] !== line) this.faults.push(fault('figure', file, `row ${i + 1}`, found![i] ?? '', line));
		});
		if (found!.length > expected!.length)
			this.faults.push(fault('figure', file, 'rows beyond those that follow from the loads'));
	}
}

/** A visit to an empty cache has a parameter of its own. */
function pageOf(url: string): string {
	const { origin, pathname } = new URL(url);
	return origin + pathname;
}

/** What follows from a record's own evidence; what the browser alone could tell stays. */
function recomputed(record: LoadRecord): Partial<Record<MetricId, number | null>> {
	const { figures, settledMs } = record;
	if (record.status !== 'ok' || record.source !== 'lab') return {};
	const whileLoading = record.requests.filter(({ during }) => during === 'load');
	const own = {
		...weightsOf(record.requests, 0),
		lcp: record.lcp?.atMs ?? null,
		cls: cumulativeLayoutShift(record.shifts),
		tbt: figures.fcp === null ? null : totalBlockingTime(record.longTasks, figures.fcp, settledMs ?? Infinity),
		full: figures.onload === null ? null : fullyLoaded(whileLoading, figures.onload),
		si: figures.start === null ? null : speedIndex(record.frames),
		vc: figures.start === null ? null : visuallyComplete(record.frames)
	};
	// A score of another recipe is not today's to compute.
	const isOurs = record.recipe === LAB_RECIPE.version;
	return isOurs ? { ...own, score: scoreOf({ ...figures, ...own }, LAB_RECIPE).value } : own;
}
