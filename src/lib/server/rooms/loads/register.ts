/** The register of third parties of a client: what its loads have seen, and what somebody wrote down. */
import { hostsSeenIn } from '$core/setups/hostsSeen';
import { thirdPartyRegister, type HostNote, type HostSeen, type RegisterLine } from '$core/setups/register';
import { cdnHostsOf } from '../clients/sites';
import { nowIso, sql, type Db } from '../../base/db/connection';
import { requestDerived } from '../../base/queue/jobs';
import { findRecord } from './loads';

/** Loads of a client that succeeded: of its trials, and its own. */
const OF_CLIENT = `FROM load WHERE (client_id = @clientId
	OR trial_id IN (SELECT id FROM trial WHERE client_id = @clientId)) AND load.status = 'ok'`;
/** The newest loads say what a site asks for; older ones are history. */
const NEWEST = 500;
/** Read between two loads of the lab. */
const AT_ONCE = 100;

/** Loads whose hosts have not been read yet. */
export function unreadLoads(db: Db, clientId: number): number {
	return sql<{ n: number }>(db, `SELECT count(*) AS n ${OF_CLIENT} AND hosts_noted = 0`).get({ clientId })!.n;
}

/** Before what may wait, after what somebody waits for. */
const SOON = 2;

/** Have a lab read them between loads. */
export function queueHosts(db: Db, clientId: number): void {
	requestDerived(db, { kind: 'client', id: clientId }, 'hosts', SOON);
}

/** Read the hosts of the newest unread loads; further ones are asked for again. */
export async function deriveHosts(db: Db, clientId: number): Promise<void> {
	const rows = sql<{ id: number }>(
		db,
		`SELECT load.id ${OF_CLIENT} AND hosts_noted = 0 ORDER BY load.id DESC LIMIT ${AT_ONCE}`
	).all({ clientId });
	for (const { id } of rows) {
		noteHosts(db, clientId, id);
		await new Promise((next) => setImmediate(next));
	}
}

function noteHosts(db: Db, clientId: number, loadId: number): void {
	const record = findRecord(db, loadId);
	const cdnHosts = record ? cdnHostsOf(db, clientId, new URL(record.finalUrl || record.url).host) : [];
	const facts = record ? hostsSeenIn(record, cdnHosts) : [];
	db.transaction(() => {
		const insert = sql(
			db,
			`INSERT OR REPLACE INTO host_seen (load_id, host, requests, wire_bytes, blocking_ms, tail_ms, asked_by, is_seen)
				VALUES (@loadId, @host, @requests, @wireBytes, @blockingMs, @tailMs, @askedBy, @isSeen)`
		);
		for (const fact of facts)
			insert.run({ ...fact, loadId, requests: BigInt(fact.requests), isSeen: BigInt(fact.isSeen) });
		sql(db, 'UPDATE load SET hosts_noted = 1 WHERE id = ?').run(loadId);
	})();
}

function hostsSeen(db: Db, clientId: number): HostSeen[] {
	return sql<Omit<HostSeen, 'isSeen' | 'device'> & { isSeen: number; isPhone: number | null }>(
		db,
		`SELECT host, load_id AS load, url AS page, started_at AS at, host_seen.requests, wire_bytes AS wireBytes,
			blocking_ms AS blockingMs, tail_ms AS tailMs, asked_by AS askedBy, is_seen AS isSeen, isPhone
			FROM host_seen JOIN (SELECT load.id, load.url, load.started_at,
				(SELECT body ->> '$.device.mobile' FROM conditions_version WHERE hash = load.conditions_hash) AS isPhone ${OF_CLIENT} ORDER BY load.id DESC LIMIT ${NEWEST}) AS own
			ON own.id = load_id`
	)
		.all({ clientId })
		.map(({ isPhone, ...row }) => ({
			...row,
			page: row.page.replace(/[?#].*$/, ''),
			device: isPhone === 1 ? 'phone' : 'desktop',
			isSeen: row.isSeen === 1
		}));
}

export function hostNotes(db: Db, clientId: number): HostNote[] {
	return sql<HostNote>(
		db,
		'SELECT host, owner, purpose, confirmed_at AS confirmedAt FROM third_party WHERE client_id = ?'
	).all(clientId);
}

/** Heaviest first. */
export function registerOf(db: Db, clientId: number): RegisterLine[] {
	return thirdPartyRegister(hostsSeen(db, clientId), hostNotes(db, clientId), nowIso());
}

/** @param isConfirmed somebody said today that it is wanted; false leaves the date as it is */
export function saveHostNote(
	db: Db,
	clientId: number,
	{ host, owner, purpose, isConfirmed }: Omit<HostNote, 'confirmedAt'> & { isConfirmed: boolean }
): void {
	sql(
		db,
		`INSERT INTO third_party (client_id, host, owner, purpose, confirmed_at)
			VALUES (@clientId, @host, @owner, @purpose, @confirmedAt)
			ON CONFLICT (client_id, host) DO UPDATE SET owner = excluded.owner, purpose = excluded.purpose,
				confirmed_at = coalesce(excluded.confirmed_at, confirmed_at)`
	).run({ clientId, host, owner, purpose, confirmedAt: isConfirmed ? nowIso() : null });
}

/** How many hosts there are, and how many may be asked about; loads that were not read yet are queued. */
export function registerSummary(db: Db, clientId: number): { hosts: number; candidates: number; unread: number } {
	const unread = unreadLoads(db, clientId);
	if (unread) queueHosts(db, clientId);
	const lines = registerOf(db, clientId);
	return { hosts: lines.length, candidates: lines.filter(({ reasons }) => reasons.length > 0).length, unread };
}
