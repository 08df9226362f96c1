/** A rule with a load that has what it finds, and one that is clean of it. */
import type { Beside } from '$core/findings/inspection';
import type { LoadRecord } from '$core/load/record/record';

export interface FindingCase {
	has: LoadRecord;
	clean: LoadRecord;
	/** What is known beside the record: of the one that has it, and of the clean one. */
	beside?: { has: Beside; clean: Beside };
	/** Of the finding, by hand. */
	resource: string;
	bytes?: number;
	delay?: number;
	threadMs?: number;
	/** Bytes that computing found to be saved. */
	saved?: number;
}
