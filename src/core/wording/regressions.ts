/** What broke, in one sentence for the verdict line. */
import type { Regressions } from '../compare/regressions';
import { ENGLISH } from './words';

/** "2 new errors in the console", "step 3 fails": empty when nothing broke. */
export function regressionParts({ newErrors, newFailures, steps }: Regressions): string[] {
	return [
		steps.failed && ENGLISH.say('regression.step', { step: steps.failed }),
		newErrors.length && ENGLISH.say('regression.errors', { n: newErrors.length }),
		newFailures.length && ENGLISH.say('regression.requests', { n: newFailures.length })
	].filter((part) => typeof part === 'string');
}

/** Empty when nothing broke. */
export function describeRegressions(regressions: Regressions, arm: string): string {
	const parts = regressionParts(regressions);
	return parts.length ? ENGLISH.say('regression.sentence', { arm, parts: parts.join(', ') }) : '';
}
