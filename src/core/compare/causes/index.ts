/** What most likely made a difference. A new cause is a new rule and a line in the list. */
import type { Cause, CauseRule, Compared } from './cause';
import { cdnCauses, firstByteCauses } from './delivery';
import { compressionCauses, fileCauses } from './ownFiles';
import { metricOf, type MetricId, type Unit } from '../../metrics/catalogue';
import { discoveryCauses, layoutCauses, ownBlockingCauses, resourceCauses } from './page';
import { stepCauses } from './steps';
import { thirdPartyCauses } from './thirdParties';

const RULES: readonly CauseRule[] = [
	thirdPartyCauses,
	compressionCauses,
	fileCauses,
	cdnCauses,
	firstByteCauses,
	discoveryCauses,
	resourceCauses,
	layoutCauses,
	ownBlockingCauses,
	stepCauses
];

/** What counts as one step of a metric when causes are ranked against each other (house; the absolute margins). */
const STEP: Partial<Record<MetricId, number>> = {
	wire: 10_000,
	requests: 2,
	lcp: 100,
	tbt: 50,
	cls: 0.02,
	full: 100,
	stepShown: 100,
	stepQuiet: 100
};
/** What weighs less than this many steps is no cause. */
const LEAST_WEIGHT = 0.5;

/** Likeliest first. */
export function findCauses(compared: Compared): Cause[] {
	return RULES.flatMap((rule) => rule(compared))
		.map(({ factor = 1, ...cause }) => ({ ...cause, weight: (Math.abs(cause.shift) / STEP[cause.metric]!) * factor }))
		.filter(({ weight }) => weight >= LEAST_WEIGHT)
		.sort(byLikelihood);
}

/** Causes of times first, then of what moves, then of bytes and counts: bytes that cost no time explain none. */
const RANK: Partial<Record<Unit, number>> = { ms: 0, unitless: 1 };

/** Of causes that are told together, the likeliest first. */
export function byLikelihood(a: Pick<Cause, 'metric' | 'weight'>, b: Pick<Cause, 'metric' | 'weight'>): number {
	const rankOf = ({ metric }: Pick<Cause, 'metric'>) => RANK[metricOf(metric).unit] ?? 2;
	return rankOf(a) - rankOf(b) || b.weight - a.weight;
}
