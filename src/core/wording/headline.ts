/** The one-line answer of a trial for each of its conditions: what the client reads first. */
import { METRICS, metricOf } from '../metrics/catalogue';
import { ALL_PAGES, comparisonsOf } from '../trial/judge';
import type { Judgement, ShiftResult, TrialArm, TrialDesign } from '../trial/types';
import { formatIn } from './format';

export interface Headline {
	/** Conditions id and name. */
	condition: string;
	conditionName: string;
	arm: number;
	text: string;
	/** The worst that can be said of the arm's primary metrics; colours the line. */
	tone: 'better' | 'worse' | 'mixed' | 'same' | 'undecided' | 'none';
}

/** One headline per conditions and compared arm. */
export function headlineOf(design: TrialDesign, judgement: Judgement): Headline[] {
	const comparisons = comparisonsOf(design);
	const pooled = design.kind === 'sweep' && comparisons.length > 1;
	const all = pooled ? [{ arm: { ...comparisons[0]!.arm, id: ALL_PAGES, name: comparisons[0]!.arm.name, page: `All ${comparisons.length} pages` }, baseline: comparisons[0]!.baseline }] : [];
	return design.conditions.flatMap((conditions) =>
		[...all, ...comparisons].map(({ arm, baseline }) => {
			const primary = judgement.results.filter(
				(result) => result.condition === conditions.id && result.arm === arm.id && result.primary
			);
			const told = design.kind === 'same-page' ? noiseOf(primary) : summarise(primary, arm, baseline);
			const page = design.kind === 'sweep' && arm.page ? `${arm.page}: ` : '';
			return { condition: conditions.id, conditionName: conditions.name, arm: arm.id, ...told, text: page + told.text };
		})
	);
}

/** Two looks at the same page: any difference is the lab's own. */
function noiseOf(results: readonly ShiftResult[]): Pick<Headline, 'text' | 'tone'> {
	if (results.every((result) => result.verdict === 'none'))
		return { text: `No noise floor yet. ${results.find((result) => result.reason)?.reason ?? 'No loads yet.'}`, tone: 'none' };
	const told = results.filter((result) => result.verdict === 'better' || result.verdict === 'worse');
	if (told.length) return { text: `Two looks at the same page came out different in ${shortNames(told)}: do not trust small differences under these conditions.`, tone: 'worse' };
	const open = results.filter((result) => result.verdict === 'undecided');
	const floor = results.flatMap(({ metric, shift }) => (shift?.low != null && shift.high !== null ? [`${metricOf(metric).short} ${formatIn(metricOf(metric).unit, Math.max(Math.abs(shift.low), Math.abs(shift.high)), true)}`] : []));
	return { text: `Two looks at the same page agree; what is smaller than this cannot be told: ${floor.join(', ')}.${open.length ? ` More rounds would lower it for ${shortNames(open)}.` : ''}`, tone: 'same' };
}

function summarise(results: readonly ShiftResult[], arm: TrialArm, baseline: TrialArm): Pick<Headline, 'text' | 'tone'> {
	const of = (verdict: ShiftResult['verdict']) => results.filter((result) => result.verdict === verdict);
	const better = of('better');
	const worse = of('worse');
	const subject = `“${arm.name}”`;
	const object = `“${baseline.name}”`;
	const open = of('undecided').length;
	const rest = [
		of('slight').length && `${shortNames(of('slight'))} moved, perhaps too little to matter`,
		of('same').length && `no practical difference in ${shortNames(of('same'))}`,
		open && `${shortNames(of('undecided'))} undecided`
	].filter(Boolean);
	const tail = rest.length ? `; ${rest.join(', ')}` : '';
	if (results.every((result) => result.verdict === 'none'))
		return { text: `No verdict on ${subject}. ${results.find((result) => result.reason)?.reason ?? 'No loads yet.'}`, tone: 'none' };
	if (better.length && worse.length)
		return { text: `${subject} is ${reasons(better)}, but ${reasons(worse)} than ${object}${tail}.`, tone: 'mixed' };
	if (better.length || worse.length)
		return {
			text: `${subject} is ${reasons([...better, ...worse])} than ${object}${tail}.`,
			tone: better.length ? 'better' : 'worse'
		};
	if (open === results.length) return { text: `Not decided yet whether ${subject} differs from ${object}.`, tone: 'undecided' };
	if (open) return { text: `No clear difference between ${subject} and ${object} so far${tail}.`, tone: 'undecided' };
	return { text: `${subject} and ${object} show no difference that matters.`, tone: 'same' };
}

/** "slower (LCP, TBT) and heavier (Bytes)" */
function reasons(results: readonly ShiftResult[]): string {
	const byWord = new Map<string, string[]>();
	for (const metric of METRICS) {
		const result = results.find((one) => one.metric === metric.id);
		if (!result) continue;
		const word = metricOf(metric.id).words[result.verdict === 'better' ? 0 : 1];
		byWord.set(word, [...(byWord.get(word) ?? []), metric.short]);
	}
	const parts = [...byWord].map(([word, names]) => `${word} (${names.join(', ')})`);
	return parts.length > 1 ? `${parts.slice(0, -1).join(', ')} and ${parts.at(-1)}` : (parts[0] ?? '');
}

function shortNames(results: readonly ShiftResult[]): string {
	const names = results.map((result) => metricOf(result.metric).short);
	return names.length > 1 ? `${names.slice(0, -1).join(', ')} and ${names.at(-1)}` : names.join('');
}
