/** What real visitors had, in words. */
import { assess, assessed, failing, type Absence, type Assessment } from '../field/assessment';
import type { ReleaseEffect, TooSoon } from '../field/effect/types';
import type { FieldMetric } from '../field/histogram';
import type { BandOutcome } from '../field/outcome';
import type { Navigation, Refusal } from '../field/visit';
import type { ShiftResult } from '../trial/types';
import { formatValue } from './format';
import { wordDifference } from './shift';
import type { DeviceClass, FieldReading, Scope } from '../field/reading';
import { metricOf } from '../metrics/catalogue';
import { ENGLISH } from './words';

/** Of what a figure is: said wherever it is shown. @param absence why the page has none of its own, if so */
export function describeScope(scope: Scope | null, absence: Absence | null): string {
	if (scope === 'page') return ENGLISH.say('field.scope.page');
	if (scope === 'origin') return ENGLISH.say(absence === 'too-few' ? 'field.scope.origin' : 'field.scope.origin-alone');
	return ENGLISH.say(`field.scope.${absence ?? 'not-asked'}`);
}

/** "good on all three", "misses LCP, INP". */
export function describeAssessment(metrics: FieldReading['metrics'] | null, absence: Absence = 'too-few'): string {
	return ENGLISH.say(`field.assessment.${assess(metrics, absence)}`, {
		all: assessed(metrics).length === 3 ? 'yes' : 'no',
		good: ENGLISH.list(assessed(metrics).map((id) => metricOf(id).short)),
		missed: failing(metrics)
			.map((id) => metricOf(id).short)
			.join(', ')
	});
}

/** "On phones 3 of 6 pages are good on Core Web Vitals, 2 miss at least one, one has too few visits." */
export function describeTally(device: DeviceClass, assessments: readonly Assessment[]): string {
	const count = (assessment: Assessment) => assessments.filter((own) => own === assessment).length;
	const values = { device, all: assessments.length, passes: count('passes') };
	return ENGLISH.say('field.tally', {
		...values,
		fails: count('does-not'),
		few: count('not-enough-visits'),
		none: count('no-data')
	});
}

export const describeFieldFault = (fault: 'down' | 'key' | 'rate' | 'changed' | 'refused'): string =>
	ENGLISH.say(`field.fault.${fault}`);

export const describeSource = (source: 'panel' | 'visits' | 'csv'): string => ENGLISH.say(`field.source.${source}`);

/** An effect as the result of a comparison, so that it is told and drawn like every other. */
export function asShift(
	metric: FieldMetric,
	{ estimate, low, high, before, margin, verdict }: ReleaseEffect
): Pick<ShiftResult, 'metric' | 'verdict' | 'shift' | 'margin' | 'scale' | 'baselineMedian'> {
	return {
		metric,
		verdict,
		shift: { estimate, low, high, relative: before > 0 ? estimate / before : null },
		margin,
		scale: 'unit',
		baselineMedian: before
	};
}

/** What an effect rests on: days of own visits, or windows. */
export const describeEffectBasis = ({ by, observed, level }: ReleaseEffect): string =>
	ENGLISH.say(`field.effect.${by}`, { ...observed, level: Math.round(level * 100) });

/** What its drift was taken from, or that nothing stood still. */
export function describeDrift(
	metric: FieldMetric,
	{ drift }: ReleaseEffect,
	control: 'other-pages' | 'competitor' | null
): string {
	if (control === null || drift === null) return ENGLISH.say('field.effect.control.none');
	return ENGLISH.say(`field.effect.control.${control}`, { drift: wordDifference(metric, drift) });
}

export const describeTooSoon = ({ moreDays, hangTogether }: TooSoon): string =>
	hangTogether ? ENGLISH.say('field.effect.together') : ENGLISH.say('field.effect.soon', { days: moreDays ?? 0 });

const MOST_KINDS = 3;

/** Who came before and after: the kinds whose share moved most. Empty where it is not known. */
export function describeMix({ mix }: Pick<ReleaseEffect, 'mix'>): string {
	if (!mix) return '';
	const moved = [...mix.kinds].sort((a, b) => Math.abs(b.after - b.before) - Math.abs(a.after - a.before));
	const percent = (share: number) => Math.round(share * 100);
	const kinds = moved.slice(0, MOST_KINDS).map(({ kind, before, after }) => {
		const [line, way] = kind.split('/') as [string, string];
		return ENGLISH.say('field.effect.kind', { line, way, before: percent(before), after: percent(after) });
	});
	const shares = ENGLISH.say('field.effect.mix', { kinds: ENGLISH.list(kinds) });
	return mix.decides ? `${shares} ${ENGLISH.say('field.effect.mix-decides')}` : shares;
}

/** That it was moving before already; empty where it was not. */
export function describeTrend(metric: FieldMetric, { trend }: Pick<ReleaseEffect, 'trend'>): string {
	if (!trend) return '';
	return ENGLISH.say('field.effect.trend', {
		direction: trend.aWeek > 0 ? 'up' : 'down',
		size: formatValue(metric, Math.abs(trend.aWeek)),
		clear: trend.isClear ? 'yes' : 'no',
		decides: trend.decides ? 'yes' : 'no'
	});
}

/** "40 of 400 page views (7.4 to 13.3 %)". */
export function describeOutcome({ views, reached, rate, low, high }: BandOutcome): string {
	if (rate === null) return ENGLISH.say('field.outcome.none');
	const percent = (share: number) => (share * 100).toFixed(1);
	return ENGLISH.say('field.outcome.rate', { reached, views, low: percent(low), high: percent(high) });
}

/** That speed and outcome go together proves nothing: said beside the figures. */
export const describeCaveat = (): string => ENGLISH.say('field.outcome.caveat');

/** Why page views were not counted. */
export const describeRefusal = (reason: Refusal): string => ENGLISH.say(`visits.refused.${reason}`);

/** Why a metric did not come. */
export const describeMissing = (reason: 'no-input' | 'no-goal' | 'never-set' | 'not-reported'): string =>
	ENGLISH.say(`visits.missing.${reason}`);

/** How a visitor came to a page. */
export const describeNavigation = (navigation: Navigation): string => ENGLISH.say(`visits.navigation.${navigation}`);
