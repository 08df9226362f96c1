/** Why a load failed, in words. */
import type { FailureCode, FailureReason } from '../load/record/record';
import { failures } from './messages/failures';
import { wordsFrom } from './words';

const FAILURE_WORDS = wordsFrom('en', failures);

/** A failure with its words. @param detail the host, address, status or time that its sentence names */
export const failureReason = (code: FailureCode, detail = ''): FailureReason => ({
	code,
	detail,
	message: FAILURE_WORDS.say(`failure.${code}`, { detail }),
	advice: FAILURE_WORDS.say(`failure.${code}.advice`)
});

/** As it is stored: its code and what it names. Records of earlier releases hold words and stay as they are. */
export const storedFailure = ({ code, detail, ...words }: FailureReason) =>
	detail === undefined ? { code, ...words } : { code, detail };

/** As it is read: what was stored without words gets them. */
export const readFailure = (stored: Pick<FailureReason, 'code'> & Partial<FailureReason>): FailureReason =>
	stored.message ? (stored as FailureReason) : failureReason(stored.code, stored.detail);

/** Both sentences. */
export const failureWords = ({ message, advice }: FailureReason): string => `${message} ${advice}`;
