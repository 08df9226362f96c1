/**
 * The answer for a client: a sentence in plain words, "Yes" or "No" first where the question allows it, and one line of
 * what stands behind it. Claims what a verdict supports; the only figure is that of the largest decided shift.
 */
import type { PutOff } from '../compare/late/putOff';
import { boardMarks, largestDecided } from '../trial/judge/board';
import type { ShiftResult, Verdict } from '../trial/types';
import { formatDuration } from './format';
import { MOST_ROUNDS } from '../trial/judge/verdict';
import { excludesZero, isFaint } from '../trial/judge/faint';
import { describeNoise, type Tone } from './headline';
import { decidedWords, slightWords } from './judged';
import { plainList, plainName } from './plainNames';
import { askedDirection, type AskedDirection } from './question';
import { describeReason } from './reasons';
import { onlyMeets, wordDifference, wordMore, type Names } from './shift';
import { ENGLISH, type Words } from './words';

export interface PlainAnswer {
	/** "Yes. “With chat” is slower and heavier than “Without chat”." */
	sentence: string;
	/** "Largest difference: blocking time, 528 ms more. Largest paint is not decided." May be empty. */
	detail: string;
	tone: Tone;
}

type Lead = 'yes' | 'no' | 'hardly' | 'open' | 'none';

/** Two runs of the same page: any difference is the lab's own. */
export function plainNoise(results: readonly ShiftResult[], words: Words = ENGLISH): PlainAnswer {
	const primary = results.filter((result) => result.primary);
	const { text, tone } = describeNoise(primary, words);
	if (tone === 'worse' || tone === 'none') return { sentence: text, detail: '', tone };
	return { sentence: words.say('answer.noise.short'), detail: text, tone };
}

/** Answers of many variants in few sentences: what differs is said of each, the rest is named together. */
export function groupedAnswers(
	answers: readonly { label: string; sentence: string; tone: Tone }[],
	words: Words = ENGLISH
): { sentence: string; tone: Tone }[] {
	// A difference is said with its direction, each by itself.
	const isLoud = ({ tone }: { tone: Tone }) => LOUD.includes(tone);
	const quiet = (['undecided', 'same', 'none'] as const).flatMap((tone) => {
		const names = answers.filter((answer) => answer.tone === tone).map(({ label }) => label);
		return names.length ? [{ sentence: words.say(`answer.group.${tone}`, { names: words.list(names) }), tone }] : [];
	});
	return [...answers.filter(isLoud).map(({ sentence, tone }) => ({ sentence, tone })), ...quiet];
}

const LOUD: readonly Tone[] = ['better', 'worse', 'mixed', 'slight'];

/**
 * @param results of one arm under one set of conditions; only those that the trial decides on count
 * @param putOff gains that come back later: none of them is called one
 */
export function plainAnswer(
	question: string,
	{
		results,
		names,
		words = ENGLISH,
		putOff = []
	}: { results: readonly ShiftResult[]; names: Names; words?: Words; putOff?: readonly PutOff[] }
): PlainAnswer {
	const decided = results.filter((result) => result.primary);
	const primary = decided.filter(({ metric }) => !putOff.some((gain) => gain.metric === metric));
	const later = putOffSentences(
		putOff.filter(({ metric }) => decided.some((result) => result.metric === metric)),
		names,
		words
	);
	if (!later) return standingAnswer(question, primary, names, words);
	if (!primary.some(({ verdict }) => verdict === 'better' || verdict === 'worse')) {
		const rest = primary.length ? detailOf(primary, outcomeOf(primary).key, names, words) : '';
		// Asked whether it is worse, “only at first” would say that it is.
		const lead = askedDirection(question, names)?.direction === 'better' ? `${words.say('answer.lead.later')} ` : '';
		const beside = primary.some(({ verdict }) => verdict === 'slight')
			? ` ${slightSentence(primary, names, words)}`
			: '';
		return { sentence: lead + later + beside, detail: rest, tone: 'mixed' };
	}
	const standing = standingAnswer(question, primary, names, words);
	return { ...standing, sentence: `${standing.sentence} ${later}` };
}

/** One sentence for each way in which gains come back; empty when none does. */
export function putOffSentences(putOff: readonly PutOff[], { arm }: Names, words: Words): string {
	return (['postponed', 'held-back'] as const)
		.flatMap((kind) => {
			const gains = putOff.filter((gain) => gain.kind === kind);
			if (!gains.length) return [];
			const after = formatDuration(Math.min(...gains.map(({ afterMs }) => afterMs ?? 0)));
			return [words.say(`answer.put-off.${kind}`, { arm, metrics: plainList(gains, words), after })];
		})
		.join(' ');
}

function standingAnswer(question: string, primary: readonly ShiftResult[], names: Names, words: Words): PlainAnswer {
	const { key, tone } = outcomeOf(primary);
	const direction = askedOf(askedDirection(question, names), primary);
	const sentence = [
		leadWords(direction, key, words),
		askedWords(direction, key, words),
		sentenceOf(key, primary, names, words)
	];
	return { sentence: sentence.filter(Boolean).join(' '), detail: detailOf(primary, key, names, words), tone };
}

/** What is open altogether says so itself. */
function leadWords({ lead }: Asked, key: OutcomeKey, words: Words): string {
	return key === 'open' || lead === 'none' ? '' : words.say(`answer.lead.${lead}`);
}

/** Asked of something that is the same, while something else differs: the answer begins with what was asked. */
function askedWords({ lead, relevant }: Asked, key: OutcomeKey, words: Words): string {
	const isSame = relevant.every(({ verdict }) => verdict === 'same');
	if (!['no', 'hardly'].includes(lead) || !isSame || key === 'same' || key === 'same-in') return '';
	return words.say('answer.asked.same', { metrics: plainList(relevant, words) });
}

function sentenceOf(key: OutcomeKey, primary: readonly ShiftResult[], names: Names, words: Words): string {
	if (key === 'slight') return slightSentence(primary, names, words);
	if (key !== 'open') return words.say(`answer.plain.${key}`, { ...names, ...valuesOf(primary, words) });
	const open = primary.filter(({ verdict }) => verdict === 'undecided');
	const [alone, rest] = [open.filter(excludesZero), open.filter((result) => !excludesZero(result))];
	return [
		alone.length ? words.say('answer.plain.joint', { ...names, open: plainList(alone, words) }) : '',
		rest.length ? words.say('answer.plain.open', { ...names, open: plainList(rest, words) }) : ''
	]
		.filter(Boolean)
		.join(' ');
}

function slightSentence(primary: readonly ShiftResult[], names: Names, words: Words): string {
	return words.say('answer.plain.slight', { ...names, words: slightWords(primary, words) });
}

type OutcomeKey = 'difference' | 'mixed' | 'slight' | 'open' | 'same' | 'same-in' | 'none';

function outcomeOf(results: readonly ShiftResult[]): { key: OutcomeKey; tone: Tone } {
	const has = (verdict: Verdict) => results.some((result) => result.verdict === verdict);
	if (results.every(({ verdict }) => verdict === 'none')) return { key: 'none', tone: 'none' };
	if (has('better') && has('worse')) return { key: 'mixed', tone: 'mixed' };
	if (has('better') || has('worse')) return { key: 'difference', tone: has('better') ? 'better' : 'worse' };
	if (has('slight')) return { key: 'slight', tone: 'slight' };
	if (has('undecided')) return { key: 'open', tone: 'undecided' };
	return { key: has('none') ? 'same-in' : 'same', tone: 'same' };
}

function valuesOf(results: readonly ShiftResult[], words: Words) {
	const withVerdict = (verdict: Verdict) => results.filter((result) => result.verdict === verdict);
	const reason = results.find((result) => result.reason)?.reason;
	return {
		better: decidedWords(results, 'better', words),
		worse: decidedWords(results, 'worse', words),
		words: decidedWords(results, withVerdict('better').length ? 'better' : 'worse', words),
		same: plainList(withVerdict('same'), words),
		reason: reason ? describeReason(reason, words) : words.say('reason.no-look')
	};
}

interface Asked {
	lead: Lead;
	/** What the question asks about. */
	relevant: readonly ShiftResult[];
}

/** Yes and no stand on what the question asks about, and on verdicts alone. */
function askedOf(direction: AskedDirection | null, results: readonly ShiftResult[]): Asked {
	const all = results.filter(({ metric }) => direction?.metrics.includes(metric));
	// A score sums up more than what a word of speed asks about: it answers where nothing else does.
	const relevant = all.some(({ metric }) => metric !== 'score') ? all.filter(({ metric }) => metric !== 'score') : all;
	const lead = direction && all.length ? leadOf(direction, relevant, all) : 'none';
	return { lead, relevant };
}

function leadOf({ direction }: AskedDirection, relevant: readonly ShiftResult[], all: readonly ShiftResult[]): Lead {
	const opposite = direction === 'better' ? 'worse' : 'better';
	const has = (verdict: Verdict) => relevant.some((result) => result.verdict === verdict);
	const score = all.find(({ metric }) => metric === 'score')?.verdict ?? 'same';
	// What may yet turn out either way allows neither.
	if (has('none') || has('slight')) return 'none';
	if (has(direction)) return has(opposite) || has('undecided') || score === opposite ? 'none' : 'yes';
	if (has('undecided')) return has(opposite) ? 'none' : 'open';
	if (score === direction) return 'none';
	if (has(opposite)) return 'no';
	return relevant.some((result) => movedSo(result, direction)) ? 'hardly' : 'no';
}

/** Beyond chance in that direction, though within the margin. */
function movedSo(result: ShiftResult, direction: 'better' | 'worse'): boolean {
	const ends = boardMarks([result], [result.metric])[0]?.inMargins;
	if (ends?.low == null || ends.high === null) return false;
	return direction === 'better' ? ends.high < 0 : ends.low > 0;
}

function detailOf(results: readonly ShiftResult[], key: OutcomeKey, names: Names, words: Words): string {
	const open = results.filter(({ verdict }) => verdict === 'undecided');
	const isDecided = key === 'difference' || key === 'mixed';
	const hasSlight = results.some(({ verdict }) => verdict === 'slight');
	return [
		isDecided ? largestOf(results, words) : '',
		isDecided && hasSlight ? words.say('answer.detail.slight', { words: slightWords(results, words) }) : '',
		key === 'open' ? '' : openWords(open, words),
		open.length ? moreOf(open, words) : '',
		...targetsOf(results, names, words)
	]
		.filter(Boolean)
		.map(capitalised)
		.join(' ');
}

function openWords(open: readonly ShiftResult[], words: Words): string {
	const detailOf = (key: 'answer.detail.joint' | 'answer.detail.open', own: readonly ShiftResult[]) =>
		own.length ? words.say(key, { metrics: plainList(own, words), n: own.length }) : '';
	const [alone, rest] = [open.filter(excludesZero), open.filter((result) => !excludesZero(result))];
	return [detailOf('answer.detail.joint', alone), detailOf('answer.detail.open', rest)]
		.filter(Boolean)
		.map(capitalised)
		.join(' ');
}

/** By how much, where that can be said: of a call at low power the range, since its middle is probably too large. */
function largestOf(results: readonly ShiftResult[], words: Words): string {
	const marks = boardMarks(
		results,
		results.map(({ metric }) => metric)
	);
	const largest = largestDecided(marks);
	const result = results.find(({ metric }) => metric === largest?.metric);
	if (!result?.shift) return '';
	const { metric, scale, shift } = result;
	const sizeOf = (value: number) => wordDifference(metric, Math.abs(value), scale).replace(/ more$/, '');
	const values = { metric: plainName(metric, words), direction: shift.estimate > 0 ? 'more' : 'less' };
	if (!isFaint(result)) return words.say('answer.detail.largest', { ...values, size: sizeOf(shift.estimate) });
	const [least, most] = [shift.low!, shift.high!].sort((a, b) => Math.abs(a) - Math.abs(b)) as [number, number];
	return words.say('answer.detail.range', { ...values, least: sizeOf(least), most: sizeOf(most) });
}

/** What would decide the rest: what the one needs that needs most, and where it is beyond reach, for which. */
export function moreOf(open: readonly ShiftResult[], words: Words): string {
	if (open.some(({ roundsNeeded }) => roundsNeeded === null)) return '';
	const beyond = open.filter(({ roundsNeeded }) => roundsNeeded! > MOST_ROUNDS);
	const most = open.reduce((a, b) => (b.roundsNeeded! > a.roundsNeeded! ? b : a));
	return wordMore(most, plainList(beyond.length ? beyond : open, words), words);
}

/** Where the middle figures stand to their targets; of what is open only where both stand on the same side. */
function targetsOf(results: readonly ShiftResult[], names: Names, words: Words): string[] {
	const crossing = results.filter(({ target, verdict }) => target && verdict !== 'none');
	const both = (['both-met', 'both-missed'] as const).flatMap((standing) => {
		const own = crossing.filter(({ target }) => target!.standing === standing);
		return own.length ? [words.say(`answer.target.${standing}`, { metrics: plainList(own, words) })] : [];
	});
	const only = (['arm', 'baseline'] as const).flatMap((side) => {
		const own = crossing.filter((result) => result.verdict !== 'undecided' && onlyMeets(result) === side);
		return own.length
			? [words.say('answer.target.crosses', { name: names[side], metrics: plainList(own, words) })]
			: [];
	});
	return [...both, ...only];
}

const capitalised = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
