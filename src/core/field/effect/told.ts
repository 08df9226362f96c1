/** An effect in the metric's unit, with its verdict: by one rule, wherever its figures come from. */
import { metricOf } from '../../metrics/catalogue';
import { decide } from '../../trial/verdict';
import type { FieldMetric } from '../histogram';
import type { Verdict } from '../../trial/types';
import { LEVEL, type ReleaseEffect, type VisitMix } from './types';

export interface LogEffect extends Pick<ReleaseEffect, 'by' | 'before' | 'observed'> {
	/** Of the estimate, were the mix of visits that of before; with their shares. */
	mixed?: { kinds: VisitMix['kinds']; shift: number } | null;
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
	const verdictOf = (one: typeof shift) =>
		`${one.estimate > 0}/${decide({ metric, shift: one, margin, called: one.low > 0 || one.high < 0 })}`;
	const [direction, verdict] = verdictOf(shift).split('/') as [string, Verdict];
	const mixed = logs.mixed ? verdictOf(shifted(logs.mixed.shift)) : null;
	const isCall = (word: string) => !/(same|undecided)$/.test(word);
	const own = `${direction}/${verdict}`;
	// The same word of the same direction; of no call the direction says nothing.
	const decides = mixed !== null && mixed !== own && (isCall(mixed) || isCall(own) || mixed.split('/')[1] !== verdict);
	return {
		by,
		before,
		...shift,
		level: LEVEL,
		margin,
		drift: logs.drift === null ? null : inUnit(logs.drift),
		observed,
		verdict: logs.drift === null || decides ? 'none' : verdict,
		mix: logs.mixed ? { kinds: logs.mixed.kinds, decides } : null
	};
}
