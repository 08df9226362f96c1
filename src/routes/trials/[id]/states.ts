/** States and kinds of trials as the sheet prints them. */
export const STATES: Record<string, string> = {
	draft: 'Draft, not started',
	queued: 'Waits in the queue',
	running: 'Running',
	waiting: 'Waits for you',
	done: 'Done',
	stopped: 'Stopped',
	failed: 'Failed'
};

export const KINDS: Record<string, string> = {
	'side-by-side': 'Side by side',
	'before-after': 'Before and after',
	'same-page': 'Same page twice',
	sweep: 'Sweep over pages'
};
