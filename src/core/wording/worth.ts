/** Whether a gain is worth its price: gain in score and seconds against monthly cost and effort. */
import { monthlyCostOf, NO_SETUP } from '../trial/setup';
import type { ShiftResult, TrialArm } from '../trial/types';
import { formatDuration } from './format';

export interface Worth {
	/** Points of score and ms of LCP gained; negative is lost; null when not measured. */
	points: number | null;
	lcpMs: number | null;
	/** Monthly cost and hours beyond the baseline's; null when not known. */
	monthlyCost: number | null;
	hours: number | null;
	words: string;
}

export function worthOf(results: readonly ShiftResult[], baseline: TrialArm, arm: TrialArm): Worth {
	const of = (metric: string) => results.find((one) => one.metric === metric && one.arm === arm.id) ?? null;
	const [score, lcp] = [of('score'), of('lcp')];
	const [before, after] = [baseline.setup ?? NO_SETUP, arm.setup ?? NO_SETUP];
	const [costBefore, costAfter] = [monthlyCostOf(before), monthlyCostOf(after)];
	const monthlyCost = costBefore === null && costAfter === null ? null : (costAfter ?? 0) - (costBefore ?? 0);
	const hours = after.effortHours === null ? null : after.effortHours - (before.effortHours ?? 0);
	const points = score?.shift?.estimate ?? null;
	const lcpMs = lcp?.shift ? -lcp.shift.estimate : null;
	return { points, lcpMs, monthlyCost, hours, words: wordsOf([score, lcp], points, lcpMs, monthlyCost, hours) };
}

function wordsOf(told: readonly (ShiftResult | null)[], points: number | null, lcpMs: number | null, cost: number | null, hours: number | null): string {
	const known = told.filter((one): one is ShiftResult => one !== null && one.shift !== null);
	if (!known.length) return 'Nothing can be said about the gain yet.';
	const price = [cost !== null && cost !== 0 && `${Math.abs(cost)} ${cost > 0 ? 'more' : 'less'} a month`, hours !== null && hours > 0 && `${hours} ${hours === 1 ? 'hour' : 'hours'} of work`].filter(Boolean).join(' and ');
	const better = known.some((one) => one.verdict === 'better');
	const worse = known.some((one) => one.verdict === 'worse');
	const gain = [points !== null && `${Math.abs(points).toFixed(0)} ${Math.abs(points).toFixed(0) === '1' ? 'point' : 'points'} of score`, lcpMs !== null && `${formatDuration(Math.abs(lcpMs))} of LCP`].filter(Boolean).join(' and ');
	if (worse && !better) return `It costs ${gain}${price ? `, on top of ${price}` : ''}: not worth it for speed.`;
	if (better && worse) return `It gains on one figure and loses on another (${gain})${price ? ` for ${price}` : ''}: weigh them yourself.`;
	if (better) return price ? `${gain} for ${price}.` : `${gain}; no price is known.`;
	if (known.every((one) => one.verdict === 'same')) return `The gain is inside the margin: not worth more hours${cost !== null && cost > 0 ? `, nor ${cost} a month` : ''}.`;
	if (known.every((one) => one.verdict === 'same' || one.verdict === 'slight')) return `The gain is perhaps too little to matter${price ? `, and it costs ${price}` : ''}.`;
	return `No gain has been shown yet${price ? `, and it costs ${price}` : ''}.`;
}
