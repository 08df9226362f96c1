/** Files of the application: records, frames, pictures. Equal bytes are kept once, whoever uses them. */
import { sha256 } from '../db/functions';
import { sql, type Db } from '../db/connection';
import type { Subject } from '../subject';

export type ArtifactRole =
	| 'record'
	| 'frame'
	| 'picture'
	| 'step-picture'
	| 'survey-picture'
	| 'check-picture'
	// What came, for a while: a list, and the files in its order.
	| 'bodies'
	| 'body'
	| `difference/${string}`
	// Of versions of reports, and of the agency.
	| 'logo'
	| `picture/${string}`
	| `record/${number}`
	| `page/${string}`
	| `pdf/${string}`;

/** Who uses an artifact; deleting the owner deletes the use (a trigger does), and the last use the bytes. */
export interface ArtifactOwner extends Subject {
	kind: 'load' | 'trial' | 'report' | 'agency';
}

export interface ArtifactUse {
	owner: ArtifactOwner;
	role: ArtifactRole;
	/** From 0, for roles with several artifacts. */
	position?: number;
}

/** What was there under the same use is replaced. */
export function storeArtifact(db: Db, use: ArtifactUse, media: string, bytes: Uint8Array): void {
	const { owner, role, position = 0 } = use;
	const hash = sha256(bytes);
	sql(db, 'INSERT OR IGNORE INTO artifact (sha256, media, bytes) VALUES (?, ?, ?)').run(hash, media, bytes);
	sql(
		db,
		'DELETE FROM artifact_use WHERE owner_kind = ? AND owner_id = ? AND role = ? AND position = ? AND sha256 <> ?'
	).run(owner.kind, owner.id, role, position, hash);
	sql(
		db,
		'INSERT OR IGNORE INTO artifact_use (owner_kind, owner_id, role, position, sha256) VALUES (?, ?, ?, ?, ?)'
	).run(owner.kind, owner.id, role, position, hash);
}

/** One more use of the same bytes; nothing where there are none. */
export function copyArtifact(db: Db, from: ArtifactUse, to: ArtifactUse): void {
	sql(
		db,
		`INSERT OR REPLACE INTO artifact_use (owner_kind, owner_id, role, position, sha256)
			SELECT ?, ?, ?, ?, sha256 FROM artifact_use WHERE owner_kind = ? AND owner_id = ? AND role = ? AND position = ?`
	).run(...[to, from].flatMap(({ owner, role, position = 0 }) => [owner.kind, owner.id, role, position]));
}

const BYTES =
	'SELECT bytes FROM artifact_use JOIN artifact USING (sha256) WHERE owner_kind = ? AND owner_id = ? AND role = ?';

export function findArtifact(db: Db, { owner, role, position = 0 }: ArtifactUse): Buffer | null {
	return (
		sql<{ bytes: Buffer }>(db, `${BYTES} AND position = ?`).get(owner.kind, owner.id, role, position)?.bytes ?? null
	);
}

/** All of one role, in order. */
export function listArtifacts(db: Db, owner: ArtifactOwner, role: ArtifactRole): Buffer[] {
	return sql<{ bytes: Buffer }>(db, `${BYTES} ORDER BY position`)
		.all(owner.kind, owner.id, role)
		.map((row) => row.bytes);
}

/** Hashes of all of one role, by position. */
export function hashesOf(db: Db, owner: ArtifactOwner, role: ArtifactRole): Map<number, string> {
	const rows = sql<{ position: number; sha256: string }>(
		db,
		'SELECT position, sha256 FROM artifact_use WHERE owner_kind = ? AND owner_id = ? AND role = ?'
	).all(owner.kind, owner.id, role);
	return new Map(rows.map(({ position, sha256: hash }) => [position, hash]));
}

/** Bodies of loads that began before a moment, UTC ISO. @returns how many uses ended */
export const dropBodiesBefore = (db: Db, before: string): number =>
	sql(
		db,
		`DELETE FROM artifact_use WHERE role IN ('bodies', 'body') AND owner_kind = 'load'
			AND EXISTS (SELECT 1 FROM load WHERE load.id = owner_id AND started_at < ?)`
	).run(before).changes;

/** Size in bytes without reading them; 0 when there is none. */
export function artifactSize(db: Db, { owner, role, position = 0 }: ArtifactUse): number {
	const row = sql<{ size: number }>(
		db,
		`SELECT length(bytes) AS size FROM artifact_use JOIN artifact USING (sha256)
			WHERE owner_kind = ? AND owner_id = ? AND role = ? AND position = ?`
	).get(owner.kind, owner.id, role, position);
	return row?.size ?? 0;
}

/** End the uses of an owner whose role begins so. */
export function deleteArtifacts(db: Db, owner: ArtifactOwner, rolePrefix: string): void {
	sql(db, 'DELETE FROM artifact_use WHERE owner_kind = ? AND owner_id = ? AND substr(role, 1, ?) = ?').run(
		owner.kind,
		owner.id,
		rolePrefix.length,
		rolePrefix
	);
}
