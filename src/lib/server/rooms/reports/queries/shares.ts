/** Links to versions of reports. */
import * as v from 'valibot';
import { createHash, randomBytes, scryptSync } from 'node:crypto';
import { nowIso, sql, type Db } from '../../../base/db/connection';
import { NotPossible } from '../../../base/refusal';
import { existingVersion } from './reports';

/** 256 bits: as many as the hash has. */
const TOKEN_BYTES = 32;

const SALT_BYTES = 16;

const PHRASE_BYTES = 32;

export const NewShare = v.object({
	expiresAt: v.optional(
		v.union(
			[v.null(), v.pipe(v.string(), v.isoDate('Write a day as 2026-12-31.'))],
			'Write a day as 2026-12-31, or leave it out for a link without an end.'
		),
		null
	),
	phrase: v.optional(v.pipe(v.string(), v.trim(), v.maxLength(200, 'A pass phrase has at most 200 characters.')), '')
});

export type NewShare = v.InferOutput<typeof NewShare>;

export interface Share {
	id: number;
	versionId: number;
	createdAt: string;
	expiresAt: string | null;
	revokedAt: string | null;
	hasPhrase: boolean;
	views: number;
	viewedAt: string | null;
}

interface ShareRow extends Omit<Share, 'hasPhrase'> {
	phrase: string | null;
}

const SELECT = `SELECT id, version_id AS versionId, created_at AS createdAt, expires_at AS expiresAt,
	revoked_at AS revokedAt, phrase, views, viewed_at AS viewedAt FROM report_share`;

const asShare = ({ phrase, ...row }: ShareRow): Share => ({ ...row, hasPhrase: phrase !== null });

const hashOf = (token: string) => createHash('sha256').update(token).digest('hex');

/** Newest first. */
export function listShares(db: Db, versionId: number): Share[] {
	return sql<ShareRow>(db, `${SELECT} WHERE version_id = ? ORDER BY id DESC`).all(versionId).map(asShare);
}

/** @returns the token: it is shown this once, and never stored */
export function createShare(db: Db, reportId: number, number: number, { expiresAt, phrase }: NewShare): string {
	const version = existingVersion(db, reportId, number);
	const end = expiresAt === null ? null : `${expiresAt}T23:59:59.999Z`;
	if (end !== null && end < nowIso()) throw new NotPossible(422, 'That day is over: choose a later one.', 'expiresAt');
	const token = randomBytes(TOKEN_BYTES).toString('base64url');
	sql(
		db,
		'INSERT INTO report_share (version_id, token_hash, phrase, created_at, expires_at) VALUES (?, ?, ?, ?, ?)'
	).run(version.id, hashOf(token), phrase ? phraseHash(phrase) : null, nowIso(), end);
	return token;
}

/** @throws NotPossible for a link that is not there */
export function revokeShare(db: Db, id: number): void {
	const { changes } = sql(db, 'UPDATE report_share SET revoked_at = coalesce(revoked_at, ?) WHERE id = ?').run(
		nowIso(),
		id
	);
	if (changes === 0) throw new NotPossible(404, `There is no link ${id}.`);
}

export interface OpenedShare {
	id: number;
	versionId: number;
	/** Its stored hash; null where anybody with the link may read. */
	phrase: string | null;
}

/** Null alike for a token that is wrong, revoked or expired: all three take one look-up by the hash. */
export function openShare(db: Db, token: string): OpenedShare | null {
	const row = sql<ShareRow>(db, `${SELECT} WHERE token_hash = ?`).get(hashOf(token.slice(0, 200)));
	const isLive = row !== undefined && row.revokedAt === null && (row.expiresAt === null || row.expiresAt > nowIso());
	return isLive ? { id: row.id, versionId: row.versionId, phrase: row.phrase } : null;
}

/** Counts, and nothing about who. */
export function countView(db: Db, id: number): void {
	sql(db, 'UPDATE report_share SET views = views + 1, viewed_at = ? WHERE id = ?').run(nowIso(), id);
}

export function phraseHash(phrase: string, salt = randomBytes(SALT_BYTES)): string {
	return `${salt.toString('base64url')}.${scryptSync(phrase, salt, PHRASE_BYTES).toString('base64url')}`;
}
