/**
 * Whether real visitors have it good: the Core Web Vitals assessment (web.dev, "Defining the Core Web Vitals metrics
 * thresholds").
 */
import { bandOf } from '../metrics/catalogue';
import type { FieldReading } from './reading';

export type Assessment = 'passes' | 'does-not' | 'not-enough-visits';

/** The three that are assessed; INP may be missing, since pages without input have none. */
const ASSESSED = ['lcp', 'inp', 'cls'] as const;

/** Passes when the 75th percentile of each is good; not enough visits where LCP or CLS is missing. */
export function assess(metrics: FieldReading['metrics'] | null): Assessment {
	if (!metrics?.lcp || !metrics.cls) return 'not-enough-visits';
	const known = ASSESSED.flatMap((id) => (metrics[id] ? [bandOf(id, metrics[id].p75)] : []));
	return known.every((band) => band === 'good') ? 'passes' : 'does-not';
}

/** The metrics that keep it from passing. */
export function failing(metrics: FieldReading['metrics'] | null): (typeof ASSESSED)[number][] {
	return ASSESSED.filter((id) => metrics?.[id] && bandOf(id, metrics[id].p75) !== 'good');
}
