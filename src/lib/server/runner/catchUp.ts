/** What is not derived under today's rules, or from today's inputs, is queued behind everything else. */
import { JUDGE_VERSION } from '$core/trial/judge/judge';
import type { Db } from '../base/db/connection';
import { FINDINGS_VERSION } from '$core/findings/findings';
import { requestFindings } from '../rooms/audits/commands';
import { auditsWithoutFindings } from '../rooms/audits/view';
import { RANKS_VERSION } from '../rooms/standings/ranks';
import { EVIDENCE_VERSION } from '../rooms/trials/evidence';
import { HISTORY_VERSION, requestHistory } from '../rooms/watch/history';
import { putBehind, queueMissing, withOldHistory } from './queries';

const IS_JUDGED = "status NOT IN ('draft', 'queued')";
const OUTDATED = [
	{ what: 'judgement', missing: 'judgement', version: JUDGE_VERSION, which: IS_JUDGED },
	// Judged before lists were filtered by outcomes: judging anew stores both.
	{ what: 'judgement', missing: 'outcome', version: JUDGE_VERSION, which: IS_JUDGED },
	{
		what: 'evidence',
		missing: 'evidence',
		version: EVIDENCE_VERSION,
		which: "status IN ('waiting', 'done', 'stopped')"
	}
] as const;

/** At the start of a lab: what was queued before it is no hurry, and new rules ask for new answers. */
export function queueOutdated(db: Db): void {
	db.transaction(() => {
		putBehind(db);
		for (const outdated of OUTDATED) queueMissing(db, outdated);
		for (const id of auditsWithoutFindings(db, FINDINGS_VERSION)) requestFindings(db, id);
		for (const id of withOldHistory(db, { history: HISTORY_VERSION, ranks: RANKS_VERSION })) requestHistory(db, id);
	}).immediate();
}
