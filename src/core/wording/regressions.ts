/** What broke, in one sentence for the verdict line. */
import { PICTURE_WITHIN, type Regressions } from '../compare/regressions';
import { ENGLISH } from './words';

/**
 * "2 new errors in the console", "step 3 fails": empty when nothing broke. What is gone, and how the page looks, is
 * said beside what broke; alone it may be what the change is for.
 */
export function regressionParts({
	newErrors,
	newFailures,
	steps,
	vanished,
	pictureShare,
	broken
}: Regressions): string[] {
	const looks = pictureShare !== null && pictureShare > PICTURE_WITHIN;
	return [
		steps.failed && ENGLISH.say('regression.step', { step: steps.failed }),
		newErrors.length && ENGLISH.say('regression.errors', { n: newErrors.length }),
		newFailures.length && ENGLISH.say('regression.requests', { n: newFailures.length }),
		broken && vanished.length && ENGLISH.say('regression.vanished', { n: vanished.length }),
		broken && looks && ENGLISH.say('regression.looks', { percent: Math.round(pictureShare * 100) })
	].filter((part) => typeof part === 'string');
}

/** Empty when nothing broke. */
export function describeRegressions(regressions: Regressions, arm: string): string {
	const parts = regressionParts(regressions);
	return parts.length ? ENGLISH.say('regression.sentence', { arm, parts: parts.join(', ') }) : '';
}
