/**
 * Whether a bundle is what it says: its files by their sums and signatures, every figure, verdict and table computed
 * anew from the loads, what is shown by what it follows from.
 */
import { LAB_RECIPE } from '../metrics/score';
import { JUDGE_VERSION } from '../trial/judge/judge';
import { MANIFEST, PAGE, pictureFile, REPORT, trialFile, type Manifest } from '../report/bundle';
import { EvidenceCheck } from './evidence';
import { fault, type Fault } from './faults';
import { ShownCheck } from './shown';
import { contentFaults, readManifest, signatureFaults, sumFaults, textOf } from './sums';
import type { Files, Rules, Tools } from './tools';
import type { FrozenReport, ReportView, TrialEvidence } from '../report/view';

export type { Fault, FaultKind } from './faults';
export type { Drawing, Files, Rules, Tools } from './tools';

/** `unverifiable`: nothing is wrong in it, and yet not all of it could be checked here. */
export type VerificationEnd = 'verified' | 'forged' | 'unverifiable';

export interface Verification {
	end: VerificationEnd;
	faults: Fault[];
	/** How many figures, marks and tables were computed anew. */
	figures: number;
	files: number;
	/** Versions that are not today's: what they make is not computed anew. */
	otherRules: Rules[];
	/** What today's rules of judgement would say otherwise; empty where the report is judged by them. */
	today: string[];
	/** The key that signed it; null for a bundle that nobody signed. */
	key: string | null;
}

/** Never throws: what cannot be read is a fault. */
export function verifyBundle(files: Files, tools: Tools): Verification {
	const manifest = readManifest(files);
	const blank = { figures: 0, files: files.size, otherRules: [], today: [], key: null };
	if (!manifest) return { ...blank, end: 'forged', faults: [fault('manifest', MANIFEST, 'cannot be read')] };
	const isSigned = manifest.key !== undefined && manifest.signature !== undefined;
	const held = [...sumFaults(files, manifest, tools), ...signatureFaults(manifest, tools)];
	try {
		const { faults, ...found } = checkContents(files, manifest, tools);
		const all = withoutDoubles([...held, ...faults]);
		const isWhole = isSigned && found.otherRules.every(({ of }) => of === 'drawing');
		const end = all.length > 0 ? 'forged' : isWhole ? 'verified' : 'unverifiable';
		return { ...blank, ...found, end, faults: all, key: manifest.key ?? null };
	} catch (error) {
		const unreadable = fault('unreadable', REPORT, `is not of the shape of a report: ${(error as Error).message}`);
		return { ...blank, end: 'forged', faults: [...held, unreadable] };
	}
}

/** A file that is not there is told once. */
function withoutDoubles(faults: readonly Fault[]): Fault[] {
	const seen = new Set<string>();
	return faults.filter(({ kind, file, what }) => {
		const key = kind === 'missing' ? `missing ${file}` : `${kind} ${file} ${what}`;
		return !seen.has(key) && seen.add(key);
	});
}

function checkContents(files: Files, manifest: Manifest, tools: Tools) {
	const faults: Fault[] = [];
	const read = reader(files, faults);
	const report = read<Omit<FrozenReport, 'trials'> & { trials: number[] }>(REPORT);
	if (!report) return { faults, figures: 0, otherRules: [], today: [] };
	const trials = report.trials.flatMap((id) => read<TrialEvidence>(trialFile(id)) ?? []);
	faults.push(...headFaults(report, manifest));
	if (manifest.format === 2) faults.push(...contentFaults(files, report, trials));
	const otherRules = otherRulesOf(report.rules, manifest, tools);
	const evidence = new EvidenceCheck(files, manifest, otherRules);
	const computed = evidence.run(trials);
	const shown = new ShownCheck(files, report.view, computed, evidence.records);
	shown.run();
	if (manifest.format === 2) {
		shown.stamp(report);
		faults.push(...drawnFaults(files, manifest, report.view, tools));
	}
	return {
		faults: [...faults, ...evidence.faults, ...shown.faults],
		figures: evidence.figures + shown.figures,
		otherRules,
		today: evidence.today
	};
}

function reader(files: Files, faults: Fault[]) {
	return <Shape>(name: string): Shape | null => {
		const bytes = files.get(name);
		if (!bytes) {
			faults.push(fault('missing', name, 'not there'));
			return null;
		}
		try {
			const value = JSON.parse(textOf(bytes)) as Shape | null;
			if (typeof value === 'object' && value !== null) return value;
			faults.push(fault('unreadable', name, 'holds nothing'));
			return null;
		} catch {
			faults.push(fault('unreadable', name, 'no JSON'));
			return null;
		}
	};
}

/** What the manifest says of the report is what the report says of itself. */
function headFaults({ rules, view, number, frozenAt }: Omit<FrozenReport, 'trials'>, manifest: Manifest): Fault[] {
	const checks: [what: string, found: unknown, expected: unknown][] = [
		['rules: judge', rules.judge, manifest.rules.judge],
		['rules: recipe', rules.recipe, manifest.rules.recipe],
		['the title', view.title, manifest.title],
		['the number', number, manifest.number],
		['the time of freezing', frozenAt, manifest.frozenAt]
	];
	return checks
		.filter(([, found, expected]) => found !== expected)
		.map(([what, found, expected]) => fault('figure', REPORT, what, String(found), String(expected)));
}

function otherRulesOf(rules: FrozenReport['rules'], { drawing }: Manifest, { drawing: own }: Tools): Rules[] {
	const others: Rules[] = [];
	if (rules.judge !== JUDGE_VERSION) others.push({ of: 'judge', version: String(rules.judge) });
	if (rules.recipe !== LAB_RECIPE.version) others.push({ of: 'recipe', version: String(rules.recipe) });
	if (drawing !== undefined && drawing !== own?.version) others.push({ of: 'drawing', version: drawing });
	return others;
}

/** The page, drawn anew from the report and its pictures by the same drawing. */
function drawnFaults(files: Files, manifest: Manifest, view: ReportView, { drawing }: Tools): Fault[] {
	const page = files.get(PAGE);
	if (!page || !drawing || drawing.version !== manifest.drawing) return [];
	const drawn = drawing.draw(view, manifest.key ?? null, (key) => files.get(pictureFile(key)) ?? null);
	const found = textOf(page);
	if (found === drawn) return [];
	const at = firstDifference(found, drawn);
	const around = (text: string) => text.slice(Math.max(0, at - 40), at + 60);
	return [fault('shown', PAGE, 'is not the page of this report', around(found), around(drawn))];
}

function firstDifference(a: string, b: string): number {
	let at = 0;
	while (at < a.length && a[at] === b[at]) at++;
	return at;
}
