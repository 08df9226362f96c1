/** The evidence bundle of a frozen report: which files it has, and what its manifest says of them. */
import * as v from 'valibot';
import { csvOf } from '../formats/csv';
import { parseRef } from './figureRef';
import type { FrozenReport, ReportView, TrialEvidence } from './view';

export const MANIFEST = 'manifest.json';
export const REPORT = 'report.json';
export const PAGE = 'report.html';
export const FIGURES = 'figures.csv';
export const trialFile = (id: number) => `trials/${id}.json`;
export const loadFile = (id: number) => `loads/${id}.json`;
export const harFile = (id: number) => `loads/${id}.har`;

export const loadsFile = (trial: number) => `loads-${trial}.csv`;
export const ABOUT = 'README.txt';

/** The file of a picture by the key under which a report keeps it: `frame/12/3` is `pictures/frame-12-3`. */
export const pictureFile = (key: string) => `pictures/${key.replaceAll('/', '-')}`;

/** Ed25519, base64url without padding. */
const key = v.pipe(v.string(), v.regex(/^[\w-]{43}$/));
const signature = v.pipe(v.string(), v.regex(/^[\w-]{86}$/));

export const Manifest = v.object({
	/** Of the bundle: 1 has no signatures, no pictures beside the page, and nothing of what drew it. */
	format: v.picklist([1, 2]),
	title: v.string(),
	number: v.pipe(v.number(), v.safeInteger()),
	frozenAt: v.string(),
	rules: v.object({ judge: v.string(), recipe: v.string() }),
	/** Version of Zafra, as the HAR files name it. */
	zafra: v.optional(v.string()),
	/** Names what drew the page: the sum of a sample report as it is drawn. */
	drawing: v.optional(v.string()),
	/** The agency's public key. */
	key: v.optional(key),
	files: v.pipe(
		v.array(
			v.object({
				name: v.string(),
				bytes: v.pipe(v.number(), v.safeInteger()),
				sha256: v.string(),
				signature: v.optional(signature)
			})
		),
		v.maxLength(100_000)
	),
	signature: v.optional(signature)
});
export type Manifest = v.InferOutput<typeof Manifest>;

/** Every figure that a verdict of the report follows from: one row a comparison. */
export function figuresCsv(trials: readonly TrialEvidence[]): string {
	const rows = trials.flatMap(({ id, question, design, results }) => {
		const armName = (arm: number) => design.arms.find((candidate) => candidate.id === arm)?.name ?? '';
		return results.map((result) => [
			id,
			question,
			result.condition,
			result.metric,
			armName(result.baseline),
			armName(result.arm),
			result.n,
			result.baselineMedian,
			result.armMedian,
			result.shift?.estimate ?? null,
			result.shift?.low ?? null,
			result.shift?.high ?? null,
			result.scale,
			result.margin,
			result.verdict
		]);
	});
	const head =
		'trial question conditions metric baseline variant n baseline_median variant_median shift low high scale margin verdict';
	return csvOf(head.split(' '), rows);
}

/** The audit worksheet of a report as it is shown; null for a report without one. */
export function worksheetCsv({ blocks }: Pick<ReportView, 'blocks'>): string | null {
	const tables = blocks.flatMap(({ from, body }) =>
		from === 'worksheet' && body.kind === 'tables' ? body.tables : []
	);
	const [first] = tables;
	return first
		? csvOf(
				first.head,
				tables.flatMap(({ rows }) => rows.map(({ cells }) => cells))
			)
		: null;
}

/** Trials that a reference may name. */
export function resultOf(trials: readonly TrialEvidence[], ref: string) {
	const parsed = parseRef(ref);
	const trial = parsed && trials.find(({ id }) => id === parsed.trial);
	const result = trial?.results.find(
		({ condition, metric, arm }) => condition === parsed!.condition && metric === parsed!.metric && arm === parsed!.arm
	);
	return parsed && result ? { part: parsed.part, result } : null;
}

/** The report without the evidence that stands in files of its own. */
export function reportFile({ trials, ...rest }: FrozenReport): Omit<FrozenReport, 'trials'> & { trials: number[] } {
	return { ...rest, trials: trials.map(({ id }) => id) };
}
