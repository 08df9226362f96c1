/** What broke, in one sentence for the verdict line. */
import type { Regressions } from '../compare/regressions';
import { ENGLISH } from './words';

/** Empty when nothing broke. */
export function describeRegressions({ newErrors, newFailures, steps }: Regressions, arm: string): string {
	const parts = [
		steps.failed && ENGLISH.say('regression.step', { step: steps.failed }),
		newErrors.length && ENGLISH.say('regression.errors', { n: newErrors.length }),
		newFailures.length && ENGLISH.say('regression.requests', { n: newFailures.length })
	].filter((part) => typeof part === 'string');
	return parts.length ? ENGLISH.say('regression.sentence', { arm, parts: parts.join(', ') }) : '';
}
