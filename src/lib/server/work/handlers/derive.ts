/** Deriving what changed: quick, between loads and never beside one. */
import { deriveEvidence } from '../../trials/evidence';
import { deriveJudgement } from '../../trials/judgement';
import { deriveHosts } from '../../setups/register';
import { deriveHistory } from '../../watch/history';
import { deriveRanks } from '../../standings/ranks';
import type { Db } from '../../db/connection';
import type { DerivedKind } from '../derived';
import { finishJob } from '../jobs';
import type { Handler } from '../handlers';

/** Each with the number of the trial or client that the job serves. */
const DERIVE: Partial<Record<DerivedKind, (db: Db, id: number) => void | Promise<void>>> = {
	judgement: deriveJudgement,
	evidence: deriveEvidence,
	hosts: deriveHosts,
	history: deriveHistory,
	ranks: deriveRanks
};

/** Far beyond the largest trial. */
const LONGEST_MS = 300_000;

export const derive: Handler = {
	longestMs: LONGEST_MS,
	async run(job, { db, labId, log, persist }) {
		const id = Number(job.subject.split(':')[1]);
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
