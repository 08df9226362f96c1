/**
 * The answer of a trial for each of its conditions: what the client reads first. A sentence claims only what a verdict
 * supports; what is undecided is named as undecided and in no other way.
 */
import { METRICS, metricOf } from '../metrics/catalogue';
import { ALL_PAGES, comparisonsOf, type Comparison } from '../trial/comparisons';
import type { Judgement, ShiftResult, TrialArm, TrialDesign, Verdict } from '../trial/types';
import { formatIn } from './format';
import { listOf, plainList, plainName } from './plainNames';

export type Tone = 'better' | 'worse' | 'mixed' | 'slight' | 'same' | 'undecided' | 'none';

export interface Headline {
	/** Conditions id and name. */
	condition: string;
	conditionName: string;
	arm: number;
	text: string;
	/** The worst that can be said of the arm's primary metrics; colours the line. */
	tone: Tone;
}

type Told = Pick<Headline, 'text' | 'tone'>;

/** One headline per conditions and compared arm. */
export function headlineOf(design: TrialDesign, judgement: Pick<Judgement, 'results'>): Headline[] {
	const comparisons = comparisonsOf(design);
	const all = design.kind === 'sweep' && comparisons.length > 1 ? [together(comparisons)] : [];
	return design.conditions.flatMap((conditions) =>
		[...all, ...comparisons].map(({ arm, baseline }) => {
			const primary = judgement.results.filter(
				(one) => one.condition === conditions.id && one.arm === arm.id && one.primary
			);
			const told = design.kind === 'same-page' ? noiseOf(primary) : summarise(primary, arm, baseline);
			const page = design.kind === 'sweep' && arm.page ? `${arm.page}: ` : '';
			return { condition: conditions.id, conditionName: conditions.name, arm: arm.id, ...told, text: page + told.text };
		})
	);
}

function together(comparisons: readonly Comparison[]): Comparison {
	const [{ arm, baseline }] = comparisons as [Comparison];
	return { arm: { ...arm, id: ALL_PAGES, page: `All ${comparisons.length} pages` }, baseline };
}

function reasonOf(results: readonly ShiftResult[]): string {
	return results.find((result) => result.reason)?.reason ?? 'There is no look yet.';
}

const isDifference = ({ verdict }: ShiftResult) => verdict === 'better' || verdict === 'worse' || verdict === 'slight';

/** Two runs of the same page: any difference is the lab's own. */
function noiseOf(results: readonly ShiftResult[]): Told {
	if (results.every((result) => result.verdict === 'none'))
		return { text: `No noise floor yet. ${reasonOf(results)}`, tone: 'none' };
	const differing = results.filter(isDifference);
	if (differing.length)
		return {
			text: `Two runs of the same page came out different in ${plainList(differing)}: do not trust small differences under these conditions.`,
			tone: 'worse'
		};
	const open = results.filter((result) => result.verdict === 'undecided');
	const floor = results.flatMap(({ metric, shift }) =>
		shift?.low != null && shift.high !== null
			? [
					`${plainName(metric)} ${formatIn(metricOf(metric).unit, Math.max(Math.abs(shift.low), Math.abs(shift.high)), true)}`
				]
			: []
	);
	const more = open.length ? ` More rounds would lower it for ${plainList(open)}.` : '';
	return {
		text: `No difference was found between two runs of the same page; what is smaller than this cannot be told from noise: ${floor.join(', ')}.${more}`,
		tone: open.length ? 'undecided' : 'same'
	};
}

function summarise(results: readonly ShiftResult[], arm: TrialArm, baseline: TrialArm): Told {
	const of = (verdict: Verdict) => results.filter((result) => result.verdict === verdict);
	const [better, worse, slight, open] = [of('better'), of('worse'), of('slight'), of('undecided')];
	const [subject, object] = [`“${arm.name}”`, `“${baseline.name}”`];
	const tail = [
		slight.length && (better.length || worse.length)
			? `${plainList(slight)} ${slight.length === 1 ? 'differs' : 'differ'}, perhaps too little to matter`
			: '',
		open.length ? `${plainList(open)} ${areNot(open)} decided` : ''
	].filter(Boolean);
	const rest = tail.length ? `; ${tail.join('; ')}` : '';
	if (results.every((result) => result.verdict === 'none'))
		return { text: `No verdict on ${subject}. ${reasonOf(results)}`, tone: 'none' };
	if (better.length && worse.length)
		return { text: `${subject} is ${reasons(better)}, but ${reasons(worse)} than ${object}${rest}.`, tone: 'mixed' };
	if (better.length || worse.length)
		return {
			text: `${subject} is ${reasons([...better, ...worse])} than ${object}${rest}.`,
			tone: better.length ? 'better' : 'worse'
		};
	if (slight.length)
		return {
			text: `${subject} differs from ${object} in ${plainList(slight)}, perhaps too little to matter${rest}.`,
			tone: 'slight'
		};
	if (open.length)
		return {
			text: `Not decided whether ${subject} differs from ${object}: ${plainList(open)} ${open.length === 1 ? 'is' : 'are'} open.`,
			tone: 'undecided'
		};
	if (results.some((result) => result.verdict === 'none'))
		return {
			text: `${subject} and ${object} show no difference that matters in ${plainList(of('same'))}. ${reasonOf(results)}`,
			tone: 'same'
		};
	return { text: `${subject} and ${object} show no difference that matters.`, tone: 'same' };
}

function areNot(results: readonly ShiftResult[]): string {
	return results.length === 1 ? 'is not' : 'are not';
}

/** "slower (largest paint and blocking time) and heavier (bytes transferred)" */
function reasons(results: readonly ShiftResult[]): string {
	const byWord = new Map<string, string[]>();
	for (const metric of METRICS) {
		const result = results.find((one) => one.metric === metric.id);
		if (!result) continue;
		const word = metricOf(metric.id).words[result.verdict === 'better' ? 0 : 1];
		byWord.set(word, [...(byWord.get(word) ?? []), plainName(metric.id)]);
	}
	return listOf([...byWord].map(([word, names]) => `${word} (${listOf(names)})`));
}
