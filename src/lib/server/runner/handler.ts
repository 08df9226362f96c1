/** What a lab does for a kind of job, and where. */
import type { Lab } from '../../../lab/lab';
import type { Db } from '../base/db/connection';
import type { PanelSettings } from '../rooms/field/panel';
import type { HostLookSettings } from '../base/hostLook';
import type { Outward } from '../base/outward';
import type { Log } from '../base/log';
import type { Job } from '../base/queue/jobs';

/** Where a handler works: what the loop gives it. */
export interface Workplace {
	db: Db;
	lab: Lab;
	labId: string;
	log: Log;
	/** How sites are asked for their lists of pages. */
	outward: Outward;
	/** The service that knows what real visitors had. */
	panel: PanelSettings;
	/** Whom it asks of a host. */
	hostLook: HostLookSettings;
	/** Say what is under way, and when it must be over. */
	note(job: Job, withinMs: number): void;
	/** Write, and try again while another process holds the database. */
	persist<Result>(write: () => Result): Promise<Result>;
	/** Why the work under way must not be stored; null while it may. */
	interrupted(): 'lost' | 'frozen' | 'stopping' | null;
}

/** Thrown inside a transaction: the lease is another lab's, nothing may be stored. */
export class LeaseLost extends Error {}

export interface Handler {
	/** Do the job and finish it. What it throws is handled by the loop: the job is given back. */
	run(job: Job, at: Workplace): Promise<void>;
	/** For one try, ms; what takes longer has come to no end. */
	readonly longestMs: number;
	/** It took the lab down, or failed, too often: say so where its result would stand. In a transaction. */
	giveUp(job: Job, at: Workplace): void;
	/** There is no room on the disk for its result. In a transaction. */
	diskFull?(job: Job, at: Workplace): void;
}
