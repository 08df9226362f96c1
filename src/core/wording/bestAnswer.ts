/** Which candidate is best, in plain words: the best only where that is decided, else the trade with its prices. */
import { rollup } from 'd3-array';
import type { Best, Extreme } from '../trial/judge/places';
import { resultsAgainst, turned } from '../trial/judge/places';
import { monthlyCostOf } from '../trial/design/setup';
import type { ShiftResult, TrialArm, Verdict } from '../trial/types';
import type { Tone } from './headline';
import { decidedWords } from './judged';
import { wordMoney } from './money';
import { moreOf, type PlainAnswer } from './plainAnswer';
import { describeReason } from './reasons';
import { ENGLISH, type Words } from './words';

const TONES: Readonly<Record<Best['kind'], Tone>> = {
	best: 'better',
	equal: 'same',
	trade: 'mixed',
	open: 'undecided',
	none: 'none'
};

interface Candidates {
	arms: readonly TrialArm[];
	/** Of every pair, under one or all of the conditions. */
	everyPair: readonly ShiftResult[];
	/** ISO 4217, of their prices. */
	currency: string;
}

export function bestAnswer(best: Best, candidates: Candidates, words: Words = ENGLISH): PlainAnswer {
	const { arms, everyPair } = candidates;
	const primary = everyPair.filter((result) => result.primary);
	const detail = [pricesOf(candidates, words), openOf(best, primary, words)].filter(Boolean).join(' ');
	return { sentence: sentenceOf(best, arms, primary, words), detail, tone: TONES[best.kind] };
}

function sentenceOf(best: Best, arms: readonly TrialArm[], primary: readonly ShiftResult[], words: Words): string {
	const n = arms.length;
	const nameOf = (id: number) => arms.find((arm) => arm.id === id)?.name ?? '';
	switch (best.kind) {
		case 'best':
			return words.say('answer.best.best', { arm: nameOf(best.arm), n });
		case 'equal':
			return words.say('answer.best.equal', { names: words.list(best.arms.map((id) => `“${nameOf(id)}”`)) });
		case 'none': {
			const reason = primary.find((result) => result.reason)?.reason;
			return words.say('answer.best.none', {
				reason: reason ? describeReason(reason, words) : words.say('reason.no-look')
			});
		}
		default:
			return [
				words.say(`answer.best.${best.kind}`, { n }),
				...best.ahead.map((extreme) => extremeWords(extreme, 'better')),
				...best.behind.map((extreme) => extremeWords(extreme, 'worse'))
			].join(' ');
	}

	function extremeWords({ arm }: Extreme, direction: 'better' | 'worse'): string {
		const told = decidedWords(mergedOf(primary, arm), direction, words);
		return words.say('answer.best.extreme', { arm: nameOf(arm), words: told });
	}
}

/** A candidate against all others at once: a verdict only where it is the same against each of them. */
function mergedOf(primary: readonly ShiftResult[], arm: number): ShiftResult[] {
	const own = resultsAgainst(primary, arm).map(turned);
	return [...new Set(own.map(({ metric }) => metric))].map((metric) => {
		const results = own.filter((result) => result.metric === metric);
		const [first] = results as [ShiftResult];
		const isAlike = results.every(({ verdict }) => verdict === first.verdict);
		return { ...first, verdict: isAlike ? first.verdict : ('undecided' as Verdict) };
	});
}

function pricesOf({ arms, currency }: Candidates, words: Words): string {
	const prices = arms.map(({ name, setup }) => ({ name, cost: setup ? monthlyCostOf(setup) : null }));
	if (prices.every(({ cost }) => cost === null)) return '';
	return words.say('answer.best.prices', {
		prices: words.list(
			prices.map(({ name, cost }) =>
				words.say('answer.best.price', {
					arm: name,
					price: cost === null ? words.say('answer.best.unknown-price') : wordMoney(cost, currency, words.language)
				})
			)
		)
	});
}

/** What would decide the rest. */
function openOf({ kind }: Best, primary: readonly ShiftResult[], words: Words): string {
	const undecided = primary.filter(({ verdict }) => verdict === 'undecided');
	// Of each metric the pair that needs most.
	const open = [...rollup(undecided, largestNeed, ({ metric }) => metric).values()];
	return open.length && kind !== 'best' && kind !== 'equal' ? moreOf(open, words) : '';
}

const largestNeed = (results: readonly ShiftResult[]): ShiftResult =>
	results.reduce((a, b) => ((b.roundsNeeded ?? 0) > (a.roundsNeeded ?? 0) ? b : a));

/** "first", "second or third", "first to fourth" */
export function wordPlace({ from, to }: { from: number; to: number }, words: Words = ENGLISH): string {
	const nth = (n: number) => words.say('place.nth', { n: String(n) });
	if (from === to) return nth(from);
	return words.say(to === from + 1 ? 'place.either' : 'place.range', { from: nth(from), to: nth(to) });
}
