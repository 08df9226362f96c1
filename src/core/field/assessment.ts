/**
 * Whether real visitors have it good: the Core Web Vitals assessment (web.dev, "Defining the Core Web Vitals metrics
 * thresholds").
 */
import { bandOf } from '../metrics/catalogue';
import type { FieldReading } from './reading';

export type Assessment = 'passes' | 'does-not' | 'not-enough-visits' | 'no-data';

/** Why there are no figures: nobody has asked, nobody answered, or the answer was that too few came. */
export type Absence = 'not-asked' | 'no-answer' | 'too-few';

/** The three that are assessed; INP may be missing, since pages without input have none. */
const ASSESSED = ['lcp', 'inp', 'cls'] as const;

/**
 * Passes when the 75th percentile of each is good; not enough visits where LCP or CLS is missing.
 * @param absence why there are no figures, where there are none
 */
export function assess(metrics: FieldReading['metrics'] | null, absence: Absence = 'too-few'): Assessment {
	if (!metrics && absence !== 'too-few') return 'no-data';
	if (!metrics?.lcp || !metrics.cls) return 'not-enough-visits';
	return failing(metrics).length ? 'does-not' : 'passes';
}

/** Those of the three that have a figure. */
export const assessed = (metrics: FieldReading['metrics'] | null): (typeof ASSESSED)[number][] =>
	ASSESSED.filter((id) => metrics?.[id]);

/** The metrics that keep it from passing. */
export function failing(metrics: FieldReading['metrics'] | null): (typeof ASSESSED)[number][] {
	return ASSESSED.filter((id) => metrics?.[id] && bandOf(id, metrics[id].p75) !== 'good');
}
