/** The register of third parties of a client: what its loads have seen, and what somebody wrote down. */
import { hostsSeenIn } from '$core/setups/hostsSeen';
import { thirdPartyRegister, type RegisterLine } from '$core/setups/register';
import { nowIso, type Db } from '../../base/db/connection';
import { requestDerived } from '../../base/queue/jobs';
import { findRecord } from './loads';
import { unreadLoads, hostsSeen, hostNotes, withoutHosts, saveHostsSeen } from './queries/register';
import { cdnHostsOf } from '../clients/view';

/** Read between two loads of the lab. */
const AT_ONCE = 100;

/** Before what may wait, after what somebody waits for. */
const SOON = 2;

/** Have a lab read them between loads. */
export function queueHosts(db: Db, clientId: number): void {
	requestDerived(db, { kind: 'client', id: clientId }, 'hosts', SOON);
}

/** Read the hosts of the newest unread loads; further ones are asked for again. */
export async function deriveHosts(db: Db, clientId: number): Promise<void> {
	for (const { id } of withoutHosts(db, clientId, AT_ONCE)) {
		noteHosts(db, clientId, id);
		await new Promise((next) => setImmediate(next));
	}
}

function noteHosts(db: Db, clientId: number, loadId: number): void {
	const record = findRecord(db, loadId);
	const cdnHosts = record ? cdnHostsOf(db, clientId, new URL(record.finalUrl || record.url).host) : [];
	const facts = record ? hostsSeenIn(record, cdnHosts) : [];
	db.transaction(() => saveHostsSeen(db, loadId, facts))();
}

/** Heaviest first. */
export function registerOf(db: Db, clientId: number): RegisterLine[] {
	return thirdPartyRegister(hostsSeen(db, clientId), hostNotes(db, clientId), nowIso());
}

/** How many hosts there are, and how many may be asked about; loads that were not read yet are queued. */
export function registerSummary(db: Db, clientId: number): { hosts: number; candidates: number; unread: number } {
	const unread = unreadLoads(db, clientId);
	if (unread) queueHosts(db, clientId);
	const lines = registerOf(db, clientId);
	return { hosts: lines.length, candidates: lines.filter(({ reasons }) => reasons.length > 0).length, unread };
}
