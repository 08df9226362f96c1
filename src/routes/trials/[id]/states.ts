/** States, kinds and parts of trials as the sheet prints them. */
import type { PartId } from '$lib/server/trials/partsView';

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
	'side-by-side': 'side by side',
	'before-after': 'before and after',
	'same-page': 'same page twice',
	sweep: 'one change on many pages'
};

export const PART_NAMES: Record<PartId, string> = {
	why: 'Why',
	broke: 'Did anything break?',
	fairness: 'Fairness',
	worth: 'Worth it?',
	shifts: 'Loads and shift',
	table: 'All metrics',
	frames: 'Frames side by side',
	held: 'Waits for interaction',
	arms: 'Variants',
	method: 'Method',
	loads: 'Every load',
	repeats: 'Other runs'
};
