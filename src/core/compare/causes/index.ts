/** What most likely made a difference. A new cause is a new rule and a line in the list. */
import type { MetricId } from '../../metrics/catalogue';
import type { Cause, CauseRule, Compared } from './cause';
import { cdnCauses, firstByteCauses } from './delivery';
import { compressionCauses, fileCauses } from './ownFiles';
import { discoveryCauses, layoutCauses, ownBlockingCauses } from './page';
import { stepCauses } from './steps';
import { thirdPartyCauses } from './thirdParties';

const RULES: readonly CauseRule[] = [
	thirdPartyCauses,
	compressionCauses,
	fileCauses,
	cdnCauses,
	firstByteCauses,
	discoveryCauses,
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
		.sort((a, b) => b.weight - a.weight);
}
