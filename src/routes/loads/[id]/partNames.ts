/** Parts of a load's sheet as printed. */
import type { LoadPartId } from '$lib/server/rooms/loads/partLines';

export const PART_NAMES: Record<LoadPartId, string> = {
	figures: 'All figures',
	steps: 'Steps',
	picture: 'Page picture',
	frames: 'Frames',
	weight: 'Page weight',
	thread: 'Main thread',
	held: 'What comes late',
	outages: 'If an outside service fails',
	taps: 'Pressed while it loads',
	identity: 'Served the same to a visitor?',
	checks: 'More checks',
	facts: 'Facts',
	circumstances: 'Test conditions'
};
