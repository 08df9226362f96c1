/** Clients: what is asked of them all over. */
import * as v from 'valibot';
import { ClientInput } from '$core/clients/client';
import type { Language } from '$core/wording/words';
import { sql, type Db } from '../../../base/db/connection';

export interface Client extends ClientInput {
	id: number;
	/** UTC ISO; null while the agency works for it. */
	archivedAt: string | null;
	/** Rises with each change. */
	revision: number;
}

interface ClientRow {
	id: number;
	name: string;
	note: string;
	language: Language;
	currency: string;
	settings: string;
	archived_at: string | null;
	revision: number;
}

function asClient({ id, archived_at, revision, settings, ...row }: ClientRow): Client {
	return { ...v.parse(ClientInput, { ...JSON.parse(settings), ...row }), id, archivedAt: archived_at, revision };
}

/** By name; archived ones too. */
export function listClients(db: Db): Client[] {
	return sql<ClientRow>(db, 'SELECT * FROM client ORDER BY name').all().map(asClient);
}

export function findClient(db: Db, id: number): Client | null {
	const row = sql<ClientRow>(db, 'SELECT * FROM client WHERE id = ?').get(id);
	return row ? asClient(row) : null;
}

/** For choosing one: those that the agency works for. */
export function clientNames(db: Db): { id: number; name: string }[] {
	return sql<{ id: number; name: string }>(
		db,
		'SELECT id, name FROM client WHERE archived_at IS NULL ORDER BY name'
	).all();
}

export function hasClient(db: Db, id: number): boolean {
	return sql(db, 'SELECT 1 FROM client WHERE id = ?').get(id) !== undefined;
}

/** Of what the client reads; English for nobody in particular. */
export function languageOfClient(db: Db, clientId: number | null): Language {
	const row = sql<{ language: Language }>(db, 'SELECT language FROM client WHERE id = ?').get(clientId);
	return row?.language ?? 'en';
}

/** ISO 4217; the euro for nobody's. */
export function currencyOfClient(db: Db, clientId: number | null): string {
	if (clientId === null) return 'EUR';
	return sql<{ currency: string }>(db, 'SELECT currency FROM client WHERE id = ?').get(clientId)?.currency ?? 'EUR';
}

export function findClientByName(db: Db, name: string): number | null {
	return sql<{ id: number }>(db, 'SELECT id FROM client WHERE name = ?').get(name)?.id ?? null;
}
