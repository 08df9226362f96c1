/** What an interval allows to be said of a size. */
import type { ShiftResult } from '../types';

type Judged = Pick<ShiftResult, 'shift'>;

export function excludesZero({ shift }: Judged): boolean {
	return shift !== null && shift.low !== null && shift.high !== null && (shift.low > 0 || shift.high < 0);
}

/**
 * Half-widths of its interval below which an estimate that was called is probably too large: were the truth at the end
 * that is nearest to zero, so many rounds would see it with a chance of less than 80 %.
 */
const FAINT = 2.5;

/**
 * Whether a call came at low power: of true differences that can hardly be seen, those are called that chance made look
 * larger ("winner's curse"; type M error, Gelman and Carlin 2014).
 */
export function isFaint({ shift }: Judged): boolean {
	if (!shift || shift.low === null || shift.high === null) return false;
	return Math.abs(shift.estimate) < (FAINT * (shift.high - shift.low)) / 2;
}
