/** Rows of clients, written and deleted. */
import type { ClientInput } from '$core/clients/client';
import { sql, type Db } from '../../../base/db/connection';

function columnsOf({ name, note, language, currency, ...settings }: ClientInput) {
	return { name, note, language, currency, settings: JSON.stringify(settings) };
}

/** @returns its number */
export function insertClient(db: Db, client: ClientInput): number {
	const { lastInsertRowid } = sql(
		db,
		`INSERT INTO client (name, note, language, currency, settings)
			VALUES (@name, @note, @language, @currency, @settings)`
	).run(columnsOf(client));
	return Number(lastInsertRowid);
}

export interface GoesAlong {
	sites: number;
	pages: number;
	trials: number;
	loads: number;
}

/** What would go with a client. */
export function goesWithClient(db: Db, id: number): GoesAlong {
	return sql<GoesAlong>(
		db,
		`SELECT (SELECT count(*) FROM site WHERE client_id = @id) AS sites,
			(SELECT count(*) FROM page JOIN site ON site.id = site_id WHERE client_id = @id) AS pages,
			(SELECT count(*) FROM trial WHERE client_id = @id) AS trials,
			(SELECT count(*) FROM load
				WHERE client_id = @id OR trial_id IN (SELECT id FROM trial WHERE client_id = @id)) AS loads`
	).get({ id })!;
}

export function updateClient(db: Db, id: number, client: ClientInput): void {
	sql(
		db,
		`UPDATE client SET name = @name, note = @note, language = @language, currency = @currency, settings = @settings,
			revision = revision + 1 WHERE id = @id`
	).run({ id, ...columnsOf(client) });
}

export function setArchived(db: Db, id: number, at: string | null): void {
	sql(db, 'UPDATE client SET archived_at = ? WHERE id = ?').run(at, id);
}

/** Whether one of its trials is. */
export const isUnderWay = (db: Db, id: number): boolean =>
	sql(db, `SELECT 1 FROM trial WHERE client_id = ? AND status IN ('queued', 'running')`).get(id) !== undefined;

/** A client with its loads and trials, and with what waits and was derived for it. */
export function deleteWithAll(db: Db, id: number): void {
	sql(db, 'DELETE FROM load WHERE client_id = ?').run(id);
	sql(db, 'DELETE FROM trial WHERE client_id = ?').run(id);
	for (const table of ['job', 'derived'])
		sql(
			db,
			`DELETE FROM ${table} WHERE subject_kind = 'audit' AND subject_id IN (SELECT id FROM audit WHERE client_id = ?)`
		).run(id);
	for (const table of ['job', 'derived'])
		sql(db, `DELETE FROM ${table} WHERE subject_kind = 'client' AND subject_id = ?`).run(id);
	sql(db, 'DELETE FROM client WHERE id = ?').run(id);
}
