import type { MetricId } from '../metrics/catalogue';
import type { Shift, Verdict } from '../trial/types';

export interface Change {
	page: number;
	condition: string;
	metric: MetricId;
	/** Numbers of the last reading before the step, the first one after it, and the one at which it was called. */
	before: number;
	after: number;
	calledAt: number;
	/** Where it went on in the same direction, and when that was called; `to` and `shift` are of the newest. */
	grew: { after: number; calledAt: number }[];
	from: number;
	to: number;
	shift: Shift;
	margin: number;
	verdict: Verdict;
	/** Whether the control's drift was taken off. */
	isCorrected: boolean;
}
