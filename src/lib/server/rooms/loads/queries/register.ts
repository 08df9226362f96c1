/** Third-party hosts that a client’s loads have seen. */
import type { HostNote, HostSeen } from '$core/setups/register';
import { nowIso, sql, type Db } from '../../../base/db/connection';
import type { hostsSeenIn } from '$core/setups/hostsSeen';

/** Loads of a client that succeeded: of its trials, and its own. */
export const OF_CLIENT = `FROM load WHERE (client_id = @clientId
	OR trial_id IN (SELECT id FROM trial WHERE client_id = @clientId)) AND load.status = 'ok'`;

/** The newest loads say what a site asks for; older ones are history. */
const NEWEST = 500;

/** Loads whose hosts have not been read yet. */
export function unreadLoads(db: Db, clientId: number): number {
	return sql<{ n: number }>(db, `SELECT count(*) AS n ${OF_CLIENT} AND hosts_noted = 0`).get({ clientId })!.n;
}

export function hostsSeen(db: Db, clientId: number): HostSeen[] {
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

/** The newest loads of a client whose hosts were not read yet. */
export const withoutHosts = (db: Db, clientId: number, most: number): { id: number }[] =>
	sql<{ id: number }>(db, `SELECT load.id ${OF_CLIENT} AND hosts_noted = 0 ORDER BY load.id DESC LIMIT @most`).all({
		clientId,
		most
	});

export function saveHostsSeen(db: Db, loadId: number, facts: ReturnType<typeof hostsSeenIn>): void {
	const insert = sql(
		db,
		`INSERT OR REPLACE INTO host_seen (load_id, host, requests, wire_bytes, blocking_ms, tail_ms, asked_by, is_seen)
			VALUES (@loadId, @host, @requests, @wireBytes, @blockingMs, @tailMs, @askedBy, @isSeen)`
	);
	for (const fact of facts)
		insert.run({ ...fact, loadId, requests: BigInt(fact.requests), isSeen: BigInt(fact.isSeen) });
	sql(db, 'UPDATE load SET hosts_noted = 1 WHERE id = ?').run(loadId);
}
