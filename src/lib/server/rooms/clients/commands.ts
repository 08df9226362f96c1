/** Changes of clients. */
import type { ClientInput } from '$core/clients/client';
import { nowIso, sql, type Db } from '../../base/db/connection';
import { NotPossible } from '../../base/refusal';
import { existingClient } from './clients';

function columnsOf({ name, note, language, currency, ...settings }: ClientInput) {
	return { name, note, language, currency, settings: JSON.stringify(settings) };
}

/** @throws NotPossible when there is a client of that name @returns the id */
export function createClient(db: Db, client: ClientInput): number {
	checkName(db, client.name, null);
	const { lastInsertRowid } = sql(
		db,
		`INSERT INTO client (name, note, language, currency, settings)
			VALUES (@name, @note, @language, @currency, @settings)`
	).run(columnsOf(client));
	return Number(lastInsertRowid);
}

/**
 * @param revision the one that was read; null to change it whatever happened since
 * @throws NotPossible for a client that is not there, a name that another has, or when somebody has saved meanwhile
 */
export function changeClient(db: Db, id: number, client: ClientInput, revision: number | null = null): void {
	const { revision: now } = existingClient(db, id);
	if (revision !== null && revision !== now)
		throw new NotPossible(
			409,
			'This client was saved in another window meanwhile. What you typed is still here. Open the client in another tab to compare; saving again puts yours over what is there.',
			'revision'
		);
	checkName(db, client.name, id);
	sql(
		db,
		`UPDATE client SET name = @name, note = @note, language = @language, currency = @currency, settings = @settings,
			revision = revision + 1 WHERE id = @id`
	).run({ id, ...columnsOf(client) });
}

function checkName(db: Db, name: string, own: number | null): void {
	const row = sql<{ id: number }>(db, 'SELECT id FROM client WHERE name = ?').get(name);
	if (row && row.id !== own) throw new NotPossible(409, `There is a client “${name}” already.`, 'name');
}

/** What is archived stays as it is and leaves the lists. */
export function archiveClient(db: Db, id: number, isArchived: boolean): void {
	existingClient(db, id);
	sql(db, 'UPDATE client SET archived_at = ? WHERE id = ?').run(isArchived ? nowIso() : null, id);
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

const UNDER_WAY = `SELECT 1 FROM trial WHERE client_id = ? AND status IN ('queued', 'running')`;

/** With its sites, pages, trials and loads. @throws NotPossible while one of its trials runs */
export function deleteClient(db: Db, id: number): void {
	db.transaction(() => {
		existingClient(db, id);
		if (sql(db, UNDER_WAY).get(id)) throw new NotPossible(409, 'A trial of this client is running. Stop it first.');
		sql(db, 'DELETE FROM load WHERE client_id = ?').run(id);
		sql(db, 'DELETE FROM trial WHERE client_id = ?').run(id);
		for (const table of ['job', 'derived'])
			sql(db, `DELETE FROM ${table} WHERE subject_kind = 'client' AND subject_id = ?`).run(id);
		sql(db, 'DELETE FROM client WHERE id = ?').run(id);
	}).immediate();
}
