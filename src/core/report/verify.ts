/** Whether a bundle is what it says: sums of its files, and every figure computed anew from the loads. */
import * as v from 'valibot';
import { METRIC_IDS, type Figures, type MetricId } from '../metrics/catalogue';
import { LAB_RECIPE, scoreOf } from '../metrics/score';
import { parseRecord } from '../load/parseRecord';
import type { LoadRecord } from '../load/record';
import { cumulativeLayoutShift, fullyLoaded, totalBlockingTime } from '../load/vitals';
import { speedIndex, visuallyComplete } from '../load/visual';
import { weightsOf } from '../load/weights';
import { judge, JUDGE_VERSION } from '../trial/judge';
import type { ShiftResult } from '../trial/types';
import { tellOutside } from '../wording/outside';
import { wordFigure } from '../wording/report';
import { reportWordsIn, type ReportWords } from '../wording/reportWords';
import { ownFiguresIn } from './outside';
import { FIGURES, figuresCsv, loadFile, MANIFEST, Manifest, PAGE, REPORT, resultOf, trialFile } from './bundle';
import { citedIn, type FrozenReport, type TrialEvidence } from './view';

export type FaultKind =
	/** There is no manifest, or it cannot be read. */
	| 'manifest'
	/** Named by the manifest and not there. */
	| 'missing'
	/** There and not named by the manifest. */
	| 'extra'
	/** Its sum is another. */
	| 'sum'
	/** It cannot be read. */
	| 'unreadable'
	/** A figure that does not follow from the loads. */
	| 'figure';

export interface Fault {
	kind: FaultKind;
	/** Name of the file. */
	file: string;
	/** Which figure, or what is wrong. */
	what: string;
	/** As it stands there, and as it should; empty where that says nothing. */
	found: string;
	expected: string;
}

export interface Verification {
	faults: Fault[];
	/** How many figures were computed anew. */
	figures: number;
	files: number;
	/** Versions of the rules that made it, where they are not today's: what they make is not computed anew. */
	otherRules: Rules[];
	/** What today's rules of judgement would say otherwise; empty where the report is judged by them. */
	today: string[];
}

/** Of judgement, of scores. */
export interface Rules {
	of: 'judge' | 'recipe';
	version: string;
}

export type Files = ReadonlyMap<string, Uint8Array>;

/** @param sha256 hexadecimal sum of bytes: the core has no such function itself */
export function verifyBundle(files: Files, sha256: (bytes: Uint8Array) => string): Verification {
	const manifest = readManifest(files);
	if (!manifest) {
		const faults = [fault('manifest', MANIFEST, 'cannot be read')];
		return { faults, figures: 0, files: files.size, otherRules: [], today: [] };
	}
	const check = new Check(files);
	check.faults.push(...sumFaults(files, manifest, sha256));
	check.run(manifest);
	const { faults, figures, otherRules, today } = check;
	return { faults, figures, files: files.size, otherRules, today };
}

function fault(kind: FaultKind, file: string, what: string, found = '', expected = ''): Fault {
	return { kind, file, what, found, expected };
}

const textOf = (bytes: Uint8Array) => new TextDecoder().decode(bytes);

function readManifest(files: Files): Manifest | null {
	try {
		const bytes = files.get(MANIFEST);
		return bytes ? v.parse(Manifest, JSON.parse(textOf(bytes))) : null;
	} catch {
		return null;
	}
}

function sumFaults(files: Files, { files: named }: Manifest, sha256: (bytes: Uint8Array) => string): Fault[] {
	const faults = named.flatMap(({ name, sha256: sum }) => {
		const bytes = files.get(name);
		if (!bytes) return [fault('missing', name, 'named by the manifest and not there')];
		const own = sha256(bytes);
		return own === sum ? [] : [fault('sum', name, 'SHA-256', own, sum)];
	});
	const known = new Set([MANIFEST, ...named.map(({ name }) => name)]);
	const extra = [...files.keys()].filter((name) => !known.has(name));
	return [...faults, ...extra.map((name) => fault('extra', name, 'not named by the manifest'))];
}

/** Figures differ by rounding of their text in JSON at most. */
const WITHIN = 1e-9;

function isSame(a: number | null | undefined, b: number | null | undefined): boolean {
	if (a === null || a === undefined || b === null || b === undefined) return (a ?? null) === (b ?? null);
	return Math.abs(a - b) <= WITHIN * Math.max(1, Math.abs(a), Math.abs(b));
}

const partsOf = (result: ShiftResult | undefined) => ({
	baseline: result?.baselineMedian ?? null,
	variant: result?.armMedian ?? null,
	shift: result?.shift?.estimate ?? null,
	low: result?.shift?.low ?? null,
	high: result?.shift?.high ?? null,
	verdict: result?.verdict ?? 'none'
});
type ResultPart = keyof ReturnType<typeof partsOf>;

class Check {
	readonly faults: Fault[] = [];
	figures = 0;
	readonly otherRules: Rules[] = [];
	readonly today: string[] = [];

	constructor(private readonly files: Files) {}

	run({ rules }: Manifest): void {
		const report = this.#read<Omit<FrozenReport, 'trials'> & { trials: number[] }>(REPORT);
		if (!report) return;
		const trials = report.trials.flatMap((id) => this.#read<TrialEvidence>(trialFile(id)) ?? []);
		this.#rules(report.rules, rules);
		const computed = trials.map((trial) => this.#trial(trial));
		this.#csv(computed);
		const words = reportWordsIn(report.view.language);
		for (const { ref, text } of citedIn(report.view)) this.#cited(REPORT, computed, ref, text, words);
		this.#outside(report.view, computed, words);
		this.#page(computed, words);
	}

	#rules(found: FrozenReport['rules'], named: Manifest['rules']): void {
		const own = { judge: JUDGE_VERSION, recipe: LAB_RECIPE.version };
		for (const of of ['judge', 'recipe'] as const) {
			if (found[of] !== named[of]) this.faults.push(fault('figure', REPORT, `rules: ${of}`, found[of], named[of]));
			if (found[of] !== own[of]) this.otherRules.push({ of, version: found[of] });
		}
	}

	#read<Shape>(name: string): Shape | null {
		const bytes = this.files.get(name);
		if (!bytes) {
			if (!this.faults.some((known) => known.file === name)) this.faults.push(fault('missing', name, 'not there'));
			return null;
		}
		try {
			return JSON.parse(textOf(bytes)) as Shape;
		} catch {
			this.faults.push(fault('unreadable', name, 'no JSON'));
			return null;
		}
	}

	/** @returns the trial with its results as they follow from its loads */
	#trial(trial: TrialEvidence): TrialEvidence {
		const file = trialFile(trial.id);
		const loads = trial.loads.map((load) => {
			const record = this.#record(load.id);
			if (!record) return load;
			this.#compare(file, `load ${load.id}`, load.figures, record.figures);
			return { ...load, figures: record.figures };
		});
		const { results } = judge(trial.design, loads);
		const keyOf = ({ condition, metric, arm }: ShiftResult) => `${condition}/${metric}/${arm}`;
		const own = new Map(results.map((result) => [keyOf(result), result]));
		for (const result of trial.results) this.#result(file, keyOf(result), result, own.get(keyOf(result)));
		return { ...trial, loads, results: this.#isJudgedOtherwise ? trial.results : results };
	}

	get #isJudgedOtherwise(): boolean {
		return this.otherRules.some((rules) => rules.of === 'judge');
	}

	#record(id: number): LoadRecord | null {
		const file = loadFile(id);
		const value = this.#read<unknown>(file);
		if (value === null) return null;
		try {
			const record = parseRecord(value);
			const figures = { ...record.figures, ...recomputed(record) };
			this.#compare(file, 'the record', record.figures, figures);
			return { ...record, figures };
		} catch (error) {
			this.faults.push(fault('unreadable', file, (error as Error).message));
			return null;
		}
	}

	#compare(file: string, whose: string, found: Readonly<Partial<Figures>>, expected: Readonly<Partial<Figures>>): void {
		for (const metric of METRIC_IDS) {
			this.figures++;
			if (isSame(found[metric], expected[metric])) continue;
			this.faults.push(fault('figure', file, `${metric} of ${whose}`, String(found[metric]), String(expected[metric])));
		}
	}

	#result(file: string, key: string, found: ShiftResult, expected: ShiftResult | undefined): void {
		const [was, is] = [partsOf(found), partsOf(expected)];
		for (const part of Object.keys(was) as ResultPart[]) {
			this.figures++;
			if (typeof was[part] === 'string' ? was[part] === is[part] : isSame(was[part], is[part] as number)) continue;
			this.#differs(file, part, key, String(was[part]), String(is[part]));
		}
	}

	/** Middle figures follow from the loads alone; the rest by the rules of judgement. */
	#differs(file: string, part: ResultPart, key: string, found: string, expected: string): void {
		const what = `${part} of ${key}`;
		if (this.#isJudgedOtherwise && part !== 'baseline' && part !== 'variant')
			this.today.push(`${file}: ${what}: ${expected} for ${found}`);
		else this.faults.push(fault('figure', file, what, found, expected));
	}

	#csv(trials: readonly TrialEvidence[]): void {
		const bytes = this.files.get(FIGURES);
		if (!bytes) return;
		const [found, expected] = [textOf(bytes), figuresCsv(trials)].map((text) => text.split('\r\n'));
		expected!.forEach((line, i) => {
			if (found![i] !== line) this.faults.push(fault('figure', FIGURES, `row ${i + 1}`, found![i] ?? '', line));
		});
		if (found!.length > expected!.length)
			this.faults.push(fault('figure', FIGURES, 'rows beyond those that follow from the loads'));
	}

	#cited(file: string, trials: readonly TrialEvidence[], ref: string, text: string, words: ReportWords): void {
		this.figures++;
		const known = resultOf(trials, ref);
		const expected = known ? wordFigure(known.result, known.part, words) : '';
		if (text !== expected) this.faults.push(fault('figure', file, ref, text, expected));
	}

	/** What is said of figures from elsewhere, where it rests on loads of a trial. */
	#outside({ blocks }: FrozenReport['view'], trials: readonly TrialEvidence[], words: ReportWords): void {
		for (const { id, body } of blocks) {
			if (body.kind !== 'outside') continue;
			for (const { rests, ...found } of body.items) {
				const trial = rests && trials.find((one) => one.id === rests.of.trial);
				if (!rests || !trial) continue;
				const expected = tellOutside(rests.figure, ownFiguresIn(trial, rests.of, rests.figure), words);
				this.figures++;
				const [is, should] = [found, expected].map(({ said, own, lines, rest }) =>
					[said, own, ...lines, rest].join(' ')
				);
				if (is !== should) this.faults.push(fault('figure', REPORT, `${id}: ${rests.figure.program}`, is, should));
			}
		}
	}

	/** Figures stand in the page with their references: what is read there is what follows from the loads. */
	#page(trials: readonly TrialEvidence[], words: ReportWords): void {
		const bytes = this.files.get(PAGE);
		if (!bytes) return;
		for (const [, ref, text] of textOf(bytes).matchAll(/data-figure="([^"]+)"[^>]*>([^<]*)</g))
			this.#cited(PAGE, trials, unescaped(ref!), unescaped(text!), words);
	}
}

const ENTITIES: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"', '#39': "'" };
const unescaped = (text: string) => text.replace(/&(amp|lt|gt|quot|#39);/g, (_, name: string) => ENTITIES[name]!);

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
