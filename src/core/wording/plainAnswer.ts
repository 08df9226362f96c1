/**
 * The answer for a client: a sentence in plain words, "Yes" or "No" first where the question allows it, and one line of
 * what stands behind it. Claims what a verdict supports; the only figure is that of the largest decided shift.
 */
import type { PutOff } from '../compare/late/putOff';
import { metricOf } from '../metrics/catalogue';
import { boardMarks, largestDecided } from '../trial/board';
import type { ShiftResult, Verdict } from '../trial/types';
import { formatDuration } from './format';
import { describeNoise, judgementWord, type Tone } from './headline';
import { plainList, plainName } from './plainNames';
import { askedDirection, type AskedDirection } from './question';
import { describeReason } from './reasons';
import { wordDifference, wordMore, type Names } from './shift';
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
	const isLoud = ({ tone }: { tone: Tone }) => tone === 'better' || tone === 'worse' || tone === 'mixed';
	const quiet = (['slight', 'undecided', 'same', 'none'] as const).flatMap((tone) => {
		const names = answers.filter((answer) => answer.tone === tone).map(({ label }) => label);
		return names.length ? [{ sentence: words.say(`answer.group.${tone}`, { names: words.list(names) }), tone }] : [];
	});
	return [...answers.filter(isLoud).map(({ sentence, tone }) => ({ sentence, tone })), ...quiet];
}

/**
 * @param results of one arm under one set of conditions; only those that the trial decides on count
 * @param putOff gains that come back later: none of them is called one
 */
export function plainAnswer(
	question: string,
	results: readonly ShiftResult[],
	names: Names,
	words: Words = ENGLISH,
	putOff: readonly PutOff[] = []
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
		const rest = primary.length ? detailOf(primary, outcomeOf(primary).key, words) : '';
		// Asked whether it is worse, “only at first” would say that it is.
		const lead = askedDirection(question)?.direction === 'better' ? `${words.say('answer.lead.later')} ` : '';
		return { sentence: lead + later, detail: rest, tone: 'mixed' };
	}
	const standing = standingAnswer(question, primary, names, words);
	return { ...standing, sentence: `${standing.sentence} ${later}` };
}

/** One sentence for each way in which gains come back; empty when none does. */
function putOffSentences(putOff: readonly PutOff[], { arm }: Names, words: Words): string {
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
	// What is open altogether says so itself.
	const lead = words.say(`answer.lead.${key === 'open' ? 'none' : leadOf(askedDirection(question), primary)}`);
	const sentence = words.say(`answer.plain.${key}`, { ...names, ...valuesOf(primary, words) });
	return { sentence: lead ? `${lead} ${sentence}` : sentence, detail: detailOf(primary, key, words), tone };
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
	const of = (verdict: Verdict) => results.filter((result) => result.verdict === verdict);
	const reason = results.find((result) => result.reason)?.reason;
	return {
		better: judgedWords(of('better'), words),
		worse: judgedWords(of('worse'), words),
		words: judgedWords([...of('better'), ...of('worse')], words),
		slight: plainList(of('slight'), words),
		open: plainList(of('undecided'), words),
		same: plainList(of('same'), words),
		reason: reason ? describeReason(reason, words) : words.say('reason.no-look')
	};
}

/** "slower, heavier and less stable": the score goes without saying where something else is said. */
function judgedWords(results: readonly ShiftResult[], words: Words): string {
	const told = results.some(({ metric }) => metric !== 'score')
		? results.filter(({ metric }) => metric !== 'score')
		: results;
	const ordered = [...told].sort((a, b) => rankOf(a) - rankOf(b));
	return words.list([...new Set(ordered.map((result) => judgementWord(result, result.verdict === 'better', words)))]);
}

/** Speed is said first, then weight, then steadiness. */
function rankOf({ metric }: ShiftResult): number {
	const { unit } = metricOf(metric);
	return unit === 'ms' ? 0 : unit === 'bytes' || unit === 'count' ? 1 : 2;
}

/** Yes and no stand on what the question asks about, and on verdicts alone. */
function leadOf(asked: AskedDirection | null, results: readonly ShiftResult[]): Lead {
	if (!asked) return 'none';
	const relevant = results.filter(({ metric }) => asked.metrics.includes(metric));
	if (!relevant.length || relevant.some(({ verdict }) => verdict === 'none')) return 'none';
	const opposite = asked.direction === 'better' ? 'worse' : 'better';
	const has = (verdict: Verdict) => relevant.some((result) => result.verdict === verdict);
	if (has(asked.direction)) return has(opposite) ? 'none' : 'yes';
	// What may yet turn out either way allows neither.
	if (has('slight')) return 'none';
	if (has('undecided')) return has(opposite) ? 'none' : 'open';
	if (has(opposite)) return 'no';
	return relevant.some((result) => movedSo(result, asked.direction)) ? 'hardly' : 'no';
}

/** Beyond chance in that direction, though within the margin. */
function movedSo(result: ShiftResult, direction: 'better' | 'worse'): boolean {
	const ends = boardMarks([result], [result.metric])[0]?.inMargins;
	if (ends?.low == null || ends.high === null) return false;
	return direction === 'better' ? ends.high < 0 : ends.low > 0;
}

function detailOf(results: readonly ShiftResult[], key: OutcomeKey, words: Words): string {
	const open = results.filter(({ verdict }) => verdict === 'undecided');
	const slight = results.filter(({ verdict }) => verdict === 'slight');
	const isDecided = key === 'difference' || key === 'mixed';
	return [
		isDecided ? largestOf(results, words) : '',
		isDecided && slight.length
			? words.say('answer.detail.slight', { metrics: plainList(slight, words), n: slight.length })
			: '',
		open.length && key !== 'open'
			? words.say('answer.detail.open', { metrics: plainList(open, words), n: open.length })
			: '',
		open.length ? moreOf(open, words) : '',
		...targetsOf(results, words)
	]
		.filter(Boolean)
		.map(capitalised)
		.join(' ');
}

function largestOf(results: readonly ShiftResult[], words: Words): string {
	const marks = boardMarks(
		results,
		results.map(({ metric }) => metric)
	);
	const largest = largestDecided(marks);
	const result = results.find(({ metric }) => metric === largest?.metric);
	if (!result?.shift) return '';
	const isMore = result.shift.estimate > 0;
	const size = wordDifference(result.metric, Math.abs(result.shift.estimate), result.scale).replace(/ more$/, '');
	return words.say('answer.detail.largest', {
		metric: plainName(result.metric, words),
		size,
		direction: isMore ? 'more' : 'less'
	});
}

/** What would decide the rest: what the one needs that needs most. */
function moreOf(open: readonly ShiftResult[], words: Words): string {
	if (open.some(({ roundsNeeded }) => roundsNeeded === null)) return '';
	return wordMore(
		open.reduce((most, result) => (result.roundsNeeded! > most.roundsNeeded! ? result : most)),
		words
	);
}

/** Where the middle figures stand to their targets; of what is open only where both stand on the same side. */
function targetsOf(results: readonly ShiftResult[], words: Words): string[] {
	return (['both-met', 'crosses', 'both-missed'] as const).flatMap((standing) => {
		const told = results.filter(
			({ target, verdict }) =>
				target?.standing === standing && verdict !== 'none' && (standing !== 'crosses' || verdict !== 'undecided')
		);
		return told.length ? [words.say(`answer.target.${standing}`, { metrics: plainList(told, words) })] : [];
	});
}

const capitalised = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
