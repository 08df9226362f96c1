/** What broke, in one sentence for the verdict line. */
import { PICTURE_WITHIN, type Regressions } from '../compare/regressions';
import { ENGLISH, type EvidenceWords } from './words';

/**
 * "2 new errors in the console", "step 3 fails": empty when nothing broke. What is gone, and how the page looks, is
 * said beside what broke; alone it may be what the change is for.
 */
export function regressionParts(
	{ newErrors, newFailures, steps, vanished, pictureShare, broken }: Regressions,
	words: EvidenceWords = ENGLISH
): string[] {
	const looks = pictureShare !== null && pictureShare > PICTURE_WITHIN;
	return [
		steps.failed && words.say('regression.step', { step: steps.failed }),
		newErrors.length && words.say('regression.errors', { n: newErrors.length }),
		newFailures.length && words.say('regression.requests', { n: newFailures.length }),
		broken && vanished.length && words.say('regression.vanished', { n: vanished.length }),
		broken && looks && words.say('regression.looks', { percent: Math.round(pictureShare * 100) })
	].filter((part) => typeof part === 'string');
}

/** Empty when nothing broke. */
export function describeRegressions(regressions: Regressions, arm: string, words: EvidenceWords = ENGLISH): string {
	const parts = regressionParts(regressions, words);
	return parts.length ? words.say('regression.sentence', { arm, parts: parts.join(', ') }) : '';
}
