/** States and kinds of trials as printed. */
import type { TrialKind } from '$core/trial/types';

export const STATES: Record<string, string> = {
	draft: 'Draft',
	queued: 'In the queue',
	running: 'Running',
	waiting: 'Waits for you',
	done: 'Done',
	stopped: 'Stopped',
	failed: 'Failed'
};

export const KINDS: Record<TrialKind, string> = {
	'side-by-side': 'Side by side',
	'before-after': 'Before and after',
	'same-page': 'Same page twice',
	sweep: 'One change on many pages'
};
