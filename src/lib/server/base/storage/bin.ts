/** The bin: what was deleted at one press stays for a month, and can be taken back. */
import { nowIso, sql, type Db } from '../db/connection';
import { NotPossible } from '../refusal';

export const BIN_DAYS = 30;
const DAY_MS = 86_400_000;

export type BinKind = 'marker' | 'component' | 'block';

export interface Binned {
	id: number;
	kind: BinKind;
	/** As a list calls it. */
	name: string;
	clientId: number | null;
	clientName: string | null;
	/** UTC ISO. */
	deletedAt: string;
}

export interface IntoBin {
	kind: BinKind;
	name: string;
	clientId: number | null;
	body: unknown;
}

/** Whatever has lain there for a month goes. @returns its number in the bin */
export function putInBin(db: Db, { kind, name, clientId, body }: IntoBin, now = nowIso()): number {
	sql(db, 'DELETE FROM bin WHERE deleted_at < ?').run(oldest(now));
	const { lastInsertRowid } = sql(
		db,
		'INSERT INTO bin (kind, client_id, name, deleted_at, body) VALUES (?, ?, ?, ?, ?)'
	).run(kind, clientId, name, now, JSON.stringify(body));
	return Number(lastInsertRowid);
}

const oldest = (now: string) => new Date(Date.parse(now) - BIN_DAYS * DAY_MS).toISOString();

const SELECT = `SELECT bin.id, kind, bin.name, client_id AS clientId, client.name AS clientName, deleted_at AS deletedAt
	FROM bin LEFT JOIN client ON client.id = client_id`;

/** Deleted last first. */
export const listBin = (db: Db, now = nowIso()): Binned[] =>
	sql<Binned>(db, `${SELECT} WHERE deleted_at >= ? ORDER BY deleted_at DESC, bin.id DESC`).all(oldest(now));

export function findBinned(db: Db, id: number): Binned | null {
	return sql<Binned>(db, `${SELECT} WHERE bin.id = ?`).get(id) ?? null;
}

/** Takes it out. @throws NotPossible for what is not in the bin */
export function takeFromBin(db: Db, id: number): { kind: BinKind; body: unknown } {
	const row = sql<{ kind: BinKind; body: string }>(db, 'DELETE FROM bin WHERE id = ? RETURNING kind, body').get(id);
	if (!row)
		throw new NotPossible(404, `This is not in the bin: it was taken back, or has lain there for ${BIN_DAYS} days.`);
	return { kind: row.kind, body: JSON.parse(row.body) as unknown };
}
