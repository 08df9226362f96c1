/** An effect in the metric's unit, with its verdict: by one rule, wherever its figures come from. */
import { metricOf } from '../../metrics/catalogue';
import { decide } from '../../trial/judge/verdict';
import type { FieldMetric } from '../histogram';
import { normalQuantile } from '../../stats/normal';
import type { Trend } from './trend';
import { LEVEL, type ReleaseEffect, type VisitMix } from './types';

export interface LogEffect extends Pick<ReleaseEffect, 'by' | 'before' | 'observed'> {
	/** Of the estimate, were the mix of visits that of before; with their shares. */
	mixed?: { kinds: VisitMix['kinds']; shift: number } | null;
	/** How it was moving before; null or missing where that is not known. */
	trend?: Trend | null;
	/** Of the percentile's logarithm, what the control did taken off. */
	estimate: number;
	low: number;
	high: number;
	/** What the control did meanwhile; null without one: then there is no verdict. */
	drift: number | null;
}

export function toldEffect(metric: FieldMetric, { by, before, observed, ...logs }: LogEffect): ReleaseEffect {
	const inUnit = (log: number) => before * Math.expm1(log);
	const shifted = (by: number) => ({
		estimate: inUnit(logs.estimate + by),
		low: inUnit(logs.low + by),
		high: inUnit(logs.high + by)
	});
	const shift = shifted(0);
	const { absolute, relative } = metricOf(metric).margin;
	const margin = Math.max(absolute, relative * before);
	const verdictOf = (item: typeof shift) =>
		decide({ metric, shift: item, margin, called: item.low > 0 || item.high < 0 });
	const verdict = verdictOf(shift);
	const asBefore = logs.mixed ? shifted(logs.mixed.shift) : shift;
	const isTurned = verdict === 'slight' && asBefore.estimate > 0 !== shift.estimate > 0;
	const decides = verdictOf(asBefore) !== verdict || isTurned;
	const trend = logs.trend ? trendIn(logs.trend) : null;
	return {
		by,
		before,
		...shift,
		level: LEVEL,
		margin,
		drift: logs.drift === null ? null : inUnit(logs.drift),
		observed,
		verdict: logs.drift === null || decides || trend?.decides ? 'none' : verdict,
		mix: logs.mixed ? { kinds: logs.mixed.kinds, decides } : null,
		trend
	};

	/**
	 * Were it only the old slope that goes on, the verdict would have to stand without it. A slope that points the other
	 * way cannot look like the effect.
	 */
	function trendIn({ shift: by, error, aWeek }: Trend): ReleaseEffect['trend'] {
		const isDifference = verdict !== 'same' && verdict !== 'undecided';
		const isAlike = by > 0 === logs.estimate > 0;
		const isLeaning = Math.abs(by) > (isDifference ? LEANING : CLEAR) * error && (!isDifference || isAlike);
		const reach = (side: number) => Math.hypot(side, QUANTILE * error);
		const alone = {
			estimate: inUnit(logs.estimate - by),
			low: inUnit(logs.estimate - by - reach(logs.estimate - logs.low)),
			high: inUnit(logs.estimate - by + reach(logs.high - logs.estimate))
		};
		const turns = isLeaning && verdict !== 'undecided' && verdictOf(alone) !== verdict;
		const isClear = Math.abs(by) > CLEAR * error;
		return turns || isClear ? { aWeek: inUnit(aWeek), isClear, decides: turns } : null;
	}
}

/** Standard errors from which a slope is one. */
const CLEAR = 2;
/**
 * And from which a difference has to stand without it: simulated in bench/visitEffects. A rise of twelve or eight weeks
 * is then hardly ever an effect; one of four weeks cannot be told from a step, at any limit that still finds effects.
 */
const LEANING = 1.5;
const QUANTILE = normalQuantile((1 + LEVEL) / 2);
