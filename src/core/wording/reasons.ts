/** Why there is no verdict, in a sentence. */
import { metricOf } from '../metrics/catalogue';
import type { NoVerdictReason } from '../trial/types';
import { ENGLISH, type Words } from './words';

/** @param reason a sentence where it was stored by a version that stored sentences */
export function describeReason(reason: NoVerdictReason | string, words: Words = ENGLISH): string {
	if (typeof reason === 'string') return reason;
	const { code, ...values } = reason;
	if (!('metric' in values)) return words.say(`reason.${code}`, values);
	return words.say(`reason.${code}`, { metric: metricOf(values.metric).name });
}
