/** A rule with a load that has what it finds, and one that is clean of it. */
import type { LoadRecord } from '$core/load/record/record';

export interface FindingCase {
	has: LoadRecord;
	clean: LoadRecord;
	/** Of the finding, by hand. */
	resource: string;
	bytes?: number;
	delay?: number;
	threadMs?: number;
}
