/** What real visitors had, in words. */
import type { Assessment } from '../field/assessment';
import type { DeviceClass, Scope } from '../field/reading';
import { ENGLISH } from './words';

/** Of what a figure is: said wherever it is shown. @param isAsked the page itself was asked for */
export function describeScope(scope: Scope | null, isAsked: boolean): string {
	if (scope !== null) return ENGLISH.say(`field.scope.${scope}`);
	return ENGLISH.say(isAsked ? 'field.scope.none' : 'field.scope.unasked');
}

export const describeAssessment = (assessment: Assessment): string => ENGLISH.say(`field.assessment.${assessment}`);

/** "On phones 3 of 6 pages pass, 2 do not, one has not enough visits." */
export function describeTally(device: DeviceClass, assessments: readonly Assessment[]): string {
	const count = (asked: Assessment) => assessments.filter((one) => one === asked).length;
	const values = { device, all: assessments.length, passes: count('passes') };
	return ENGLISH.say('field.tally', { ...values, fails: count('does-not'), few: count('not-enough-visits') });
}

export const describeFieldFault = (fault: 'down' | 'key' | 'rate' | 'changed' | 'refused'): string =>
	ENGLISH.say(`field.fault.${fault}`);
