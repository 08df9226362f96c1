/** An effect in the metric's unit, with its verdict: by one rule, wherever its figures come from. */
import { metricOf } from '../../metrics/catalogue';
import { decide } from '../../trial/verdict';
import type { FieldMetric } from '../histogram';
import { LEVEL, type ReleaseEffect } from './types';

export interface LogEffect extends Pick<ReleaseEffect, 'by' | 'before' | 'observed'> {
	/** Of the percentile's logarithm, what the control did taken off. */
	estimate: number;
	low: number;
	high: number;
	/** What the control did meanwhile; null without one: then there is no verdict. */
	drift: number | null;
}

export function toldEffect(metric: FieldMetric, { by, before, observed, ...logs }: LogEffect): ReleaseEffect {
	const inUnit = (log: number) => before * Math.expm1(log);
	const shift = { estimate: inUnit(logs.estimate), low: inUnit(logs.low), high: inUnit(logs.high) };
	const { absolute, relative } = metricOf(metric).margin;
	const margin = Math.max(absolute, relative * before);
	const called = shift.low > 0 || shift.high < 0;
	return {
		by,
		before,
		...shift,
		level: LEVEL,
		margin,
		drift: logs.drift === null ? null : inUnit(logs.drift),
		observed,
		verdict: logs.drift === null ? 'none' : decide({ metric, shift, margin, called })
	};
}
