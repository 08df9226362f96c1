/** Watches, standings and their pages. */
import type { WatchSettings } from '$core/watch/input';
import { sql, type Db } from '../../../base/db/connection';

export type WatchKind = 'watch' | 'standing';

type WatchedRole = 'page' | 'competitor' | 'control';

export interface Watch {
	id: number;
	clientId: number;
	clientName: string;
	kind: WatchKind;
	name: string;
	settings: WatchSettings;
	state: 'active' | 'paused';
	/** UTC ISO; null on demand. */
	nextAt: string | null;
	createdAt: string;
}

export interface WatchedPage {
	id: number;
	pageId: number | null;
	/** Empty for the control page that ships with Zafra. */
	url: string;
	name: string;
	type: string | null;
	role: WatchedRole;
	/** UTC ISO; null while it is loaded. */
	endedAt: string | null;
}

type WatchRow = Omit<Watch, 'settings'> & { settings: string };

const SELECT = `SELECT watch.id, client_id AS clientId, client.name AS clientName, kind, watch.name, watch.settings, state,
	next_at AS nextAt, watch.created_at AS createdAt FROM watch JOIN client ON client.id = client_id`;

const asWatch = (row: WatchRow): Watch => ({ ...row, settings: JSON.parse(row.settings) as WatchSettings });

/** Newest first, of one client or of all. */
export function listWatches(db: Db, kind: WatchKind, clientId: number | null): Watch[] {
	return sql<WatchRow>(
		db,
		`${SELECT} WHERE kind = @kind AND (@clientId IS NULL OR client_id = @clientId) AND client.archived_at IS NULL
			ORDER BY watch.id DESC`
	)
		.all({ kind, clientId })
		.map(asWatch);
}

export function findWatch(db: Db, id: number): Watch | null {
	const row = sql<WatchRow>(db, `${SELECT} WHERE watch.id = ?`).get(id);
	return row ? asWatch(row) : null;
}

/** In their order; those that are not loaded any more last. */
export function pagesOfWatch(db: Db, watchId: number): WatchedPage[] {
	return sql<WatchedPage>(
		db,
		`SELECT watched_page.id, page_id AS pageId, watched_page.url, name, page.type, role, ended_at AS endedAt
			FROM watched_page LEFT JOIN page ON page.id = page_id WHERE watch_id = ?
			ORDER BY ended_at IS NOT NULL, position, watched_page.id`
	).all(watchId);
}

export function insertWatch(
	db: Db,
	{
		clientId,
		kind,
		name,
		settings,
		nextAt,
		at
	}: Pick<Watch, 'clientId' | 'kind' | 'name' | 'settings' | 'nextAt'> & { at: string }
): number {
	const { lastInsertRowid } = sql(
		db,
		'INSERT INTO watch (client_id, kind, name, settings, next_at, created_at) VALUES (?, ?, ?, ?, ?, ?)'
	).run(clientId, kind, name, JSON.stringify(settings), nextAt, at);
	return Number(lastInsertRowid);
}

export function insertWatchedPage(
	db: Db,
	watchId: number,
	{ pageId, url, name, role }: Pick<WatchedPage, 'pageId' | 'url' | 'name' | 'role'>,
	position: number
): number {
	const { lastInsertRowid } = sql(
		db,
		'INSERT INTO watched_page (watch_id, page_id, url, name, role, position) VALUES (?, ?, ?, ?, ?, ?)'
	).run(watchId, pageId, url, name, role, position);
	return Number(lastInsertRowid);
}

export function updateWatch(
	db: Db,
	id: number,
	{ name, settings, state, nextAt }: Pick<Watch, 'name' | 'settings' | 'state' | 'nextAt'>
): void {
	sql(db, 'UPDATE watch SET name = ?, settings = ?, state = ?, next_at = ? WHERE id = ?').run(
		name,
		JSON.stringify(settings),
		state,
		nextAt,
		id
	);
}

/** @param endedAt null takes it up again */
export function setEnded(db: Db, watchedPageId: number, endedAt: string | null): void {
	sql(db, 'UPDATE watched_page SET ended_at = ? WHERE id = ?').run(endedAt, watchedPageId);
}

export function deleteWatchRow(db: Db, id: number): void {
	sql(db, 'DELETE FROM watch WHERE id = ?').run(id);
}

/** Active ones whose time has come. */
export function dueWatches(db: Db, now: string): Watch[] {
	return sql<WatchRow>(
		db,
		`${SELECT} WHERE state = 'active' AND next_at <= ? AND client.archived_at IS NULL ORDER BY next_at`
	)
		.all(now)
		.map(asWatch);
}

export const kindOfWatch = (db: Db, id: number): WatchKind | null =>
	sql<{ kind: WatchKind }>(db, 'SELECT kind FROM watch WHERE id = ?').get(id)?.kind ?? null;
