/** Reports, their frozen versions and the links to them. */
import * as v from 'valibot';
import { gunzipSync, gzipSync } from 'node:zlib';
import { ReportDraft } from '$core/report/document';
import type { FrozenReport } from '$core/report/view';
import { nowIso, sql, type Db } from '../../../base/db/connection';
import { NotPossible } from '../../../base/refusal';

export interface Report {
	id: number;
	clientId: number | null;
	clientName: string | null;
	draft: ReportDraft;
	revision: number;
	createdAt: string;
	changedAt: string;
}

interface ReportRow {
	id: number;
	client_id: number | null;
	client_name: string | null;
	draft: string;
	revision: number;
	created_at: string;
	changed_at: string;
}

const SELECT = `SELECT report.id, client_id, client.name AS client_name, draft, report.revision, created_at, changed_at
	FROM report LEFT JOIN client ON client.id = client_id`;

function asReport(row: ReportRow): Report {
	return {
		id: row.id,
		clientId: row.client_id,
		clientName: row.client_name,
		draft: v.parse(ReportDraft, JSON.parse(row.draft)),
		revision: row.revision,
		createdAt: row.created_at,
		changedAt: row.changed_at
	};
}

/** @throws NotPossible for a report that is not there */
export function existingReport(db: Db, id: number): Report {
	const row = sql<ReportRow>(db, `${SELECT} WHERE report.id = ?`).get(id);
	if (!row) throw new NotPossible(404, `There is no report ${id}.`);
	return asReport(row);
}

export interface ReportLine {
	id: number;
	title: string;
	clientName: string | null;
	language: 'en' | 'es';
	changedAt: string;
	/** Of the newest version; null while it was never frozen. */
	number: number | null;
	frozenAt: string | null;
	/** Links to any of its versions that can be opened now. */
	links: number;
	views: number;
}

const LIVE_LINK = 'revoked_at IS NULL AND (expires_at IS NULL OR expires_at > @now)';

/** Newest change first. */
export function listReports(db: Db, clientId: number | null): ReportLine[] {
	return sql<ReportLine>(
		db,
		`SELECT report.id, report.title, client.name AS clientName, draft ->> '$.language' AS language, changed_at AS changedAt,
			max(number) AS number, max(frozen_at) AS frozenAt,
			(SELECT count(*) FROM report_share JOIN report_version AS own ON own.id = version_id
				WHERE own.report_id = report.id AND ${LIVE_LINK}) AS links,
			(SELECT coalesce(sum(views), 0) FROM report_share JOIN report_version AS own ON own.id = version_id
				WHERE own.report_id = report.id) AS views
			FROM report LEFT JOIN client ON client.id = client_id LEFT JOIN report_version ON report_id = report.id
			WHERE @clientId IS NULL OR client_id = @clientId
			GROUP BY report.id ORDER BY changed_at DESC, report.id DESC`
	).all({ clientId, now: nowIso() });
}

/** @returns the new report's id */
export function insertReport(db: Db, clientId: number | null, draft: ReportDraft): number {
	const now = nowIso();
	const { lastInsertRowid } = sql(
		db,
		'INSERT INTO report (client_id, title, draft, created_at, changed_at) VALUES (?, ?, ?, ?, ?)'
	).run(clientId, draft.title, JSON.stringify(draft), now, now);
	return Number(lastInsertRowid);
}

/** @returns whether the draft was still the one that was read */
export function updateDraft(db: Db, id: number, draft: ReportDraft, revision: number): boolean {
	return (
		sql(
			db,
			'UPDATE report SET draft = ?, title = ?, changed_at = ?, revision = revision + 1 WHERE id = ? AND revision = ?'
		).run(JSON.stringify(draft), draft.title, nowIso(), id, revision).changes === 1
	);
}

export function deleteReport(db: Db, id: number): boolean {
	return sql(db, 'DELETE FROM report WHERE id = ?').run(id).changes === 1;
}

export interface VersionLine {
	id: number;
	reportId: number;
	number: number;
	title: string;
	frozenAt: string;
}

const VERSION = 'SELECT id, report_id AS reportId, number, title, frozen_at AS frozenAt FROM report_version';

/** Newest first. */
export function listVersions(db: Db, reportId: number): VersionLine[] {
	return sql<VersionLine>(db, `${VERSION} WHERE report_id = ? ORDER BY number DESC`).all(reportId);
}

/** @throws NotPossible for a version that is not there */
export function existingVersion(db: Db, reportId: number, number: number): VersionLine {
	const row = sql<VersionLine>(db, `${VERSION} WHERE report_id = ? AND number = ?`).get(reportId, number);
	if (!row) throw new NotPossible(404, `Report ${reportId} has no version ${number}.`);
	return row;
}

export function findVersion(db: Db, id: number): VersionLine | null {
	return sql<VersionLine>(db, `${VERSION} WHERE id = ?`).get(id) ?? null;
}

/** @returns the version's id */
export function insertVersion(db: Db, reportId: number, frozen: FrozenReport): number {
	const { lastInsertRowid } = sql(
		db,
		'INSERT INTO report_version (report_id, number, title, frozen_at, body) VALUES (?, ?, ?, ?, ?)'
	).run(reportId, frozen.number, frozen.view.title, frozen.frozenAt, gzipSync(JSON.stringify(frozen)));
	return Number(lastInsertRowid);
}

/** All that was kept of a version. */
export function frozenOf(db: Db, versionId: number): FrozenReport {
	const { body } = sql<{ body: Buffer }>(db, 'SELECT body FROM report_version WHERE id = ?').get(versionId)!;
	return JSON.parse(gunzipSync(body).toString('utf8')) as FrozenReport;
}

export function takeBlockFromBin(db: Db, reportId: number, block: object): void {
	sql(db, `DELETE FROM bin WHERE kind = 'block' AND body ->> '$.report' = ? AND body -> '$.block' = json(?)`).run(
		reportId,
		JSON.stringify(block)
	);
}

export const isPrinting = (db: Db, versionId: number, paper: string): boolean =>
	sql(
		db,
		`SELECT 1 FROM job WHERE kind = 'render' AND subject_kind = 'report' AND subject_id = ?
			AND "order" ->> 'paper' = ? AND status IN ('queued', 'leased')`
	).get(versionId, paper) !== undefined;
