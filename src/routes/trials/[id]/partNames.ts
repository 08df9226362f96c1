/** Parts of a trial's sheet as printed. */
import type { PartId } from '$lib/server/rooms/trials/sheet/lines';

export const PART_NAMES: Record<PartId, string> = {
	why: 'Why',
	broke: 'Did anything break?',
	fairness: 'Fairness',
	worth: 'Worth it?',
	shifts: 'Loads and shift',
	table: 'All metrics',
	frames: 'Frames side by side',
	held: 'What comes late',
	arms: 'Variants',
	method: 'Method',
	loads: 'Every load',
	repeats: 'Other runs'
};
