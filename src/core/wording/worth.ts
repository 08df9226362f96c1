/** Whether a gain is worth its price: what verdicts say of score and largest paint, against monthly cost and effort. */
import { monthlyCostOf, NO_SETUP } from '../trial/design/setup';
import type { MetricId } from '../metrics/catalogue';
import type { ShiftResult, TrialArm } from '../trial/types';
import { formatDuration } from './format';
import { slightWords } from './judged';
import { wordMoney } from './money';
import { listOf, plainName } from './plainNames';
import { ENGLISH } from './words';

export interface Worth {
	/** Points of score and ms of LCP gained; negative is lost; null unless a verdict says better or worse. */
	points: number | null;
	lcpMs: number | null;
	/** Monthly cost and hours beyond the baseline's; null when not known. */
	monthlyCost: number | null;
	hours: number | null;
	words: string;
}

const isClear = ({ verdict }: ShiftResult) => verdict === 'better' || verdict === 'worse';

interface WorthOptions {
	/** Metrics of the arm whose gain comes back later: it is none. */
	putOff?: readonly MetricId[];
	/** ISO 4217, of its prices. */
	currency: string;
}

export function worthOf(
	results: readonly ShiftResult[],
	baseline: TrialArm,
	arm: TrialArm,
	{ putOff = [], currency }: WorthOptions
): Worth {
	const judged = (['score', 'lcp'] as const).flatMap(
		(metric) =>
			results.find(
				(result) => result.metric === metric && result.arm === arm.id && result.primary && result.verdict !== 'none'
			) ?? []
	);
	const counted = judged.filter(({ metric }) => !putOff.includes(metric));
	const later = judged.filter(({ metric }) => putOff.includes(metric));
	const clear = (metric: string) =>
		counted.find((result) => result.metric === metric && isClear(result))?.shift?.estimate ?? null;
	const [before, after] = [baseline.setup ?? NO_SETUP, arm.setup ?? NO_SETUP];
	const [costBefore, costAfter] = [monthlyCostOf(before), monthlyCostOf(after)];
	const monthlyCost = costBefore === null && costAfter === null ? null : (costAfter ?? 0) - (costBefore ?? 0);
	const hours = after.effortHours === null ? null : after.effortHours - (before.effortHours ?? 0);
	const lcp = clear('lcp');
	return {
		points: clear('score'),
		lcpMs: lcp === null ? null : -lcp,
		monthlyCost,
		hours,
		words: [
			laterWords(later),
			wordsOf(counted, { monthlyCost, hours, currency, others: othersWorse(results, arm) }, later.length > 0)
		]
			.filter(Boolean)
			.join(' ')
	};
}

/** What a verdict calls worse beside the two that are weighed: "nothing" would be untrue beside it. */
const othersWorse = (results: readonly ShiftResult[], arm: TrialArm): string[] =>
	results
		.filter(
			(result) =>
				result.arm === arm.id &&
				result.primary &&
				result.verdict === 'worse' &&
				!['score', 'lcp'].includes(result.metric)
		)
		.map(({ metric }) => plainName(metric));

interface Price {
	monthlyCost: number | null;
	hours: number | null;
	currency: string;
	others: readonly string[];
}

function laterWords(later: readonly ShiftResult[]): string {
	return later.length
		? `What it saves in ${listOf(later.map((result) => plainName(result.metric)))} comes back later.`
		: '';
}

function wordsOf(counted: readonly ShiftResult[], given: Price, hasLater: boolean): string {
	if (!counted.length) return hasLater ? '' : 'Neither score nor largest paint has a verdict.';
	const withVerdict = (verdict: ShiftResult['verdict']) => counted.filter((result) => result.verdict === verdict);
	const [better, worse, slight, open] = [
		withVerdict('better'),
		withVerdict('worse'),
		withVerdict('slight'),
		withVerdict('undecided')
	];
	const price = priceOf(given);
	const { others, monthlyCost: cost, currency } = given;
	const but = others.length ? `it is worse in ${listOf(others)}` : '';
	const tail = open.length
		? ` ${capital(listOf(open.map((result) => plainName(result.metric))))} ${open.length === 1 ? 'is' : 'are'} not decided.`
		: '';
	if (better.length && worse.length)
		return `It gains ${sizes(better)} and loses ${sizes(worse)}${price ? ` for ${price}` : ''}: weigh them yourself.${tail}`;
	if (worse.length)
		return `It loses ${sizes(worse)}${price ? `, on top of ${price}` : ''}: not worth it for speed.${tail}`;
	if (better.length)
		return `It gains ${sizes(better)}${price ? ` for ${price}` : '; no price is known'}${but && `, but ${but}`}.${tail}`;
	if (slight.length)
		return `It is ${slightWords(slight, ENGLISH)}; by how much is open${but && `; ${but}`}${price ? `, and the price is ${price}` : ''}.${tail}`;
	if (open.length)
		return `${[tail.trim().replace(/\.$/, ''), but, price ? `the price is ${price}` : ''].filter(Boolean).join('; ')}.`;
	if (but) return `No difference that matters in score and largest paint; ${but}: not worth it for speed.`;
	const more = cost !== null && cost > 0 ? `, nor ${wordMoney(cost, currency)} a month` : '';
	return `No difference that matters: not worth more hours${more}.`;
}

function priceOf({ monthlyCost: cost, hours, currency }: Price): string {
	const monthly = cost ? [`${wordMoney(Math.abs(cost), currency)} ${cost > 0 ? 'more' : 'less'} a month`] : [];
	const work = hours !== null && hours > 0 ? [`${hours} ${hours === 1 ? 'hour' : 'hours'} of work`] : [];
	return listOf([...monthly, ...work]);
}

function sizes(results: readonly ShiftResult[]): string {
	return listOf(
		results.map(({ metric, shift }) =>
			metric === 'score'
				? `${points(shift!.estimate)} of score`
				: `${formatDuration(Math.abs(shift!.estimate))} of largest paint`
		)
	);
}

function points(estimate: number): string {
	const text = Math.abs(estimate).toFixed(0);
	return `${text} ${text === '1' ? 'point' : 'points'}`;
}

function capital(text: string): string {
	return text.charAt(0).toUpperCase() + text.slice(1);
}
