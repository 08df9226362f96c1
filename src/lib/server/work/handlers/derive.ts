/** Deriving what changed: quick, between loads and never beside one. */
import { deriveEvidence } from '../../trials/evidence';
import { deriveJudgement } from '../../trials/judgement';
import type { Db } from '../../db/connection';
import type { DerivedKind } from '../derived';
import { finishJob } from '../jobs';
import type { Handler } from '../handlers';

const DERIVE: Partial<Record<DerivedKind, (db: Db, trialId: number) => void | Promise<void>>> = {
	judgement: deriveJudgement,
	evidence: deriveEvidence
};

export const derive: Handler = {
	async run(job, { db, labId, log, persist }) {
		const trialId = Number(job.subject.replace('trial:', ''));
		try {
			await DERIVE[job.order as DerivedKind]?.(db, trialId);
		} catch (error) {
			// Tried again when its inputs change, or by the next lab: a record that cannot be read must not stop the queue.
			log.error({ subject: job.subject, what: job.order, error: (error as Error).message }, 'could not be derived');
		}
		await persist(() => finishJob(db, job, labId));
	}
};
