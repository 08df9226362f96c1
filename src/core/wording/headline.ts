/**
 * The answer of a trial for each of its conditions: what the client reads first. A sentence claims only what a verdict
 * supports; what is undecided is named as undecided and in no other way.
 */
import { METRICS, metricOf } from '../metrics/catalogue';
import { ALL_PAGES, comparisonsOf, type Comparison } from '../trial/comparisons';
import { hasPages, isSamePage } from '../trial/kinds';
import type { Judgement, ShiftResult, TrialArm, TrialDesign, Verdict } from '../trial/types';
import { formatIn } from './format';
import { plainList, plainName } from './plainNames';
import { describeReason } from './reasons';
import type { MessageKey } from './messages/en';
import { ENGLISH, type Words } from './words';

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

type Sentence = Pick<Headline, 'text' | 'tone'>;

/** One headline per conditions and compared arm. */
export function headlineOf(
	design: TrialDesign,
	judgement: Pick<Judgement, 'results'>,
	words: Words = ENGLISH
): Headline[] {
	const comparisons = comparisonsOf(design);
	const all = hasPages(design.kind) && comparisons.length > 1 ? [together(comparisons, words)] : [];
	return design.conditions.flatMap((conditions) =>
		[...all, ...comparisons].map(({ arm, baseline }) => {
			const primary = judgement.results.filter(
				(result) => result.condition === conditions.id && result.arm === arm.id && result.primary
			);
			const { text, tone } = isSamePage(design.kind)
				? describeNoise(primary, words)
				: describeAnswer(primary, arm, baseline, words);
			const page = hasPages(design.kind) && arm.page ? `${arm.page}: ` : '';
			return { condition: conditions.id, conditionName: conditions.name, arm: arm.id, text: page + text, tone };
		})
	);
}

function together(comparisons: readonly Comparison[], words: Words): Comparison {
	const [{ arm, baseline }] = comparisons as [Comparison];
	const page = words.say('answer.pages', { n: comparisons.length });
	return { arm: { ...arm, id: ALL_PAGES, page }, baseline };
}

function reasonOf(results: readonly ShiftResult[], words: Words): string {
	const reason = results.find((result) => result.reason)?.reason;
	return reason ? describeReason(reason, words) : words.say('reason.no-look');
}

const isDifference = ({ verdict }: ShiftResult) => verdict === 'better' || verdict === 'worse' || verdict === 'slight';

/** Two runs of the same page: any difference is the lab's own. */
export function describeNoise(results: readonly ShiftResult[], words: Words): Sentence {
	if (results.every((result) => result.verdict === 'none'))
		return { text: words.say('answer.noise.none', { reason: reasonOf(results, words) }), tone: 'none' };
	const differing = results.filter(isDifference);
	if (differing.length)
		return { text: words.say('answer.noise.differs', { metrics: plainList(differing, words) }), tone: 'worse' };
	const open = results.filter((result) => result.verdict === 'undecided');
	const more = open.length ? words.say('answer.noise.more', { metrics: plainList(open, words) }) : '';
	const floor = results.flatMap((result) => floorOf(result, words)).join(', ');
	return { text: words.say('answer.noise.floor', { floor, more }), tone: open.length ? 'undecided' : 'same' };
}

/** "largest paint 90 ms": what the interval leaves open; nothing without one. */
function floorOf({ metric, shift }: ShiftResult, words: Words): string[] {
	if (shift?.low == null || shift.high === null) return [];
	const largest = Math.max(Math.abs(shift.low), Math.abs(shift.high));
	return [`${plainName(metric, words)} ${formatIn(metricOf(metric).unit, largest, true)}`];
}

function describeAnswer(
	results: readonly ShiftResult[],
	{ name: arm }: TrialArm,
	{ name: baseline }: TrialArm,
	words: Words
): Sentence {
	const of = (verdict: Verdict) => results.filter((result) => result.verdict === verdict);
	const [better, worse, slight, open] = [of('better'), of('worse'), of('slight'), of('undecided')];
	const names = { arm, baseline };
	const reason = () => reasonOf(results, words);
	if (results.every((result) => result.verdict === 'none'))
		return { text: words.say('answer.none', { ...names, reason: reason() }), tone: 'none' };
	const isDecided = better.length > 0 || worse.length > 0;
	const rest = restOf(isDecided ? slight : [], open, words);
	if (better.length && worse.length) {
		const both = { better: judgedWords(better, words), worse: judgedWords(worse, words) };
		return { text: words.say('answer.mixed', { ...names, ...both, rest }), tone: 'mixed' };
	}
	if (isDecided) {
		const judged = judgedWords([...better, ...worse], words);
		const text = words.say('answer.difference', { ...names, words: judged, rest });
		return { text, tone: better.length ? 'better' : 'worse' };
	}
	if (slight.length)
		return { text: words.say('answer.slight', { ...names, metrics: plainList(slight, words), rest }), tone: 'slight' };
	const metrics = plainList(open, words);
	if (open.length) return { text: words.say('answer.open', { ...names, metrics, n: open.length }), tone: 'undecided' };
	if (results.every((result) => result.verdict !== 'none'))
		return { text: words.say('answer.same', names), tone: 'same' };
	const same = plainList(of('same'), words);
	return { text: words.say('answer.same-in', { ...names, metrics: same, reason: reason() }), tone: 'same' };
}

/** What else must be said: "; blocking time is not decided". */
function restOf(slight: readonly ShiftResult[], open: readonly ShiftResult[], words: Words): string {
	const say = (key: 'answer.rest.slight' | 'answer.rest.open', results: readonly ShiftResult[]) =>
		results.length ? [words.say(key, { metrics: plainList(results, words), n: results.length })] : [];
	const parts = [...say('answer.rest.slight', slight), ...say('answer.rest.open', open)];
	return parts.map((part) => `; ${part}`).join('');
}

/** "slower (largest paint and blocking time) and heavier (bytes transferred)" */
function judgedWords(results: readonly ShiftResult[], words: Words): string {
	const byWord = new Map<string, string[]>();
	for (const { id } of METRICS) {
		const result = results.find(({ metric }) => metric === id);
		if (!result) continue;
		const word = judgementWord(result, result.verdict === 'better', words);
		byWord.set(word, [...(byWord.get(word) ?? []), plainName(id, words)]);
	}
	return words.list([...byWord].map(([word, names]) => `${word} (${words.list(names)})`));
}

/** "faster" or "slower": what a metric's change for the better or the worse is called. */
export function judgementWord({ metric }: Pick<ShiftResult, 'metric'>, isBetter: boolean, words: Words): string {
	const key = `verdict.${metricOf(metric).words[isBetter ? 0 : 1]}` as Extract<MessageKey, `verdict.${string}`>;
	return words.say(key);
}
