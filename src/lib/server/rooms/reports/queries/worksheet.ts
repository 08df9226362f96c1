/** How each page of the worksheet stands, change by change. */
import type { WorksheetLine } from '$core/report/document';
import { nowIso, sql, type Db } from '../../../base/db/connection';

/** Null for a page that was on no worksheet yet. */
export function lastLine(db: Db, page: number, device: string): WorksheetLine | null {
	const row = sql<WorksheetLine>(
		db,
		`SELECT page_id AS page, device, state, note, owner FROM worksheet_line
			WHERE page_id = ? AND device = ? ORDER BY changed_at DESC LIMIT 1`
	).get(page, device);
	return row ?? null;
}

/** Lines that stand otherwise than last time are one more entry of their history. */
export function keepLines(db: Db, lines: readonly WorksheetLine[]): void {
	const now = nowIso();
	const insert = sql(
		db,
		`INSERT OR REPLACE INTO worksheet_line (page_id, device, changed_at, state, note, owner)
			SELECT id, ?, ?, ?, ?, ? FROM page WHERE id = ?`
	);
	for (const { page, device, state, note, owner } of lines) {
		const last = lastLine(db, page, device);
		if (!last || last.state !== state || last.note !== note || last.owner !== owner)
			insert.run(device, now, state, note, owner, page);
	}
}
