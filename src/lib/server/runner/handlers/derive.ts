/** Deriving what changed: quick, between loads and never beside one. */
import { deriveFindings } from '../../rooms/audits/findings';
import { deriveEvidence } from '../../rooms/trials/evidence';
import { deriveJudgement } from '../../rooms/trials/judgement';
import { deriveHosts } from '../../rooms/loads/register';
import { deriveHistory } from '../../rooms/watch/history';
import { deriveRanks } from '../../rooms/standings/ranks';
import type { Db } from '../../base/db/connection';
import type { DerivedKind } from '../../base/queue/derived';
import { finishJob } from '../../base/queue/jobs';
import type { Handler } from '../handler';
import { workOutSavings } from './savings';

/** Each with the number of the trial or client that the job serves. */
const DERIVE: Partial<Record<DerivedKind, (db: Db, id: number) => void | Promise<void>>> = {
	judgement: deriveJudgement,
	evidence: deriveEvidence,
	hosts: deriveHosts,
	history: deriveHistory,
	ranks: deriveRanks,
	findings: deriveFindings
};

/** Far beyond the largest trial. */
const LONGEST_MS = 300_000;

export const derive: Handler = {
	longestMs: LONGEST_MS,
	async run(job, at) {
		const { db, labId, log, persist } = at;
		const id = job.subject.id;
		if (job.order === 'savings') return workOutSavings(job, at);
		try {
			await DERIVE[job.order as DerivedKind]?.(db, id);
		} catch (error) {
			// Tried again when its inputs change, or by the next lab: a record that cannot be read must not stop the queue.
			log.error({ subject: job.subject, what: job.order, error: (error as Error).message }, 'could not be derived');
		}
		await persist(() => finishJob(db, job, labId));
	},
	giveUp({ subject, order }, { log }) {
		log.error({ subject, what: order }, 'could not be derived: it took the lab down too often');
	}
};
