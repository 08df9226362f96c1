/** Any table of a client, there and back. */
import { sql, type Db } from '../../../base/db/connection';
import type { ArchiveRow as Row, ArchiveTable as Table } from '../tables';

/** Trials of a client with loads still to come: half a trial is not exported. */
export const underWayOf = (db: Db, clientId: number): number[] =>
	sql<{ id: number }>(
		db,
		"SELECT id FROM trial WHERE client_id = ? AND status IN ('queued', 'running', 'paused') ORDER BY id"
	)
		.all(clientId)
		.map(({ id }) => id);

export type Ids = Map<string, Map<number, number>>;

export function findShared(db: Db, { name, isShared }: Table, row: Row): Row | undefined {
	const where = isShared!.map((column) => `"${column}" = @${column}`).join(' AND ');
	return sql<Row>(db, `SELECT * FROM "${name}" WHERE ${where}`).get(row);
}

/** Two clients never have one name. */
export function freeName(db: Db, name: string): string {
	const isTaken = (candidate: string) => sql(db, 'SELECT 1 FROM client WHERE name = ?').get(candidate) !== undefined;
	if (!isTaken(name)) return name;
	for (let n = 2; ; n++) if (!isTaken(`${name} (${n})`)) return `${name} (${n})`;
}

/** Numbers of arms inside the design of a trial. What follows from its loads is worked out anew. */
export function adoptDesigns(db: Db, ids: Ids): void {
	for (const id of ids.get('trial')!.values()) {
		const { options } = sql<{ options: string }>(db, 'SELECT options FROM trial WHERE id = ?').get(id)!;
		const design = JSON.parse(options) as { lateAsked?: number[] };
		const lateAsked = design.lateAsked?.flatMap((arm) => ids.get('arm')!.get(arm) ?? []);
		sql(db, 'UPDATE trial SET options = ?, inputs = inputs + 1 WHERE id = ?').run(
			JSON.stringify(lateAsked ? { ...design, lateAsked } : design),
			id
		);
	}
}

/** Numbers of loads that jobs name before there are loads: whose page was asked again. */
export function adoptOrders(db: Db, ids: Ids): void {
	const again = sql<{ id: number; load: number }>(
		db,
		'SELECT id, of_load AS load FROM job WHERE id IN (SELECT value FROM json_each(?)) AND of_load IS NOT NULL'
	).all(JSON.stringify([...ids.get('job')!.values()]));
	for (const { id, load } of again)
		sql(db, 'UPDATE job SET of_load = ? WHERE id = ?').run(ids.get('load')!.get(load) ?? null, id);
}

/** Numbers of watched pages inside the lists of what was loaded more often. */
export function adoptExtended(db: Db, ids: Ids): void {
	const pages = ids.get('watched_page')!;
	for (const id of ids.get('reading')!.values()) {
		const text = sql<{ extended: string | null }>(db, 'SELECT extended FROM reading WHERE id = ?').get(id)!.extended;
		if (text === null) continue;
		const extended = (JSON.parse(text) as { page: number; condition: string }[]).flatMap(({ page, condition }) =>
			pages.has(page) ? [{ page: pages.get(page)!, condition }] : []
		);
		sql(db, 'UPDATE reading SET extended = ? WHERE id = ?').run(JSON.stringify(extended), id);
	}
}

/** Numbers of visitor states inside the settings of watches. */
export function adoptVisitors(db: Db, ids: Ids): void {
	const states = ids.get('visitor_state')!;
	for (const id of ids.get('watch')!.values()) {
		const { settings } = sql<{ settings: string }>(db, 'SELECT settings FROM watch WHERE id = ?').get(id)!;
		const read = JSON.parse(settings) as { states?: number[] };
		if (!read.states?.length) continue;
		const own = read.states.flatMap((old) => states.get(old) ?? []);
		sql(db, 'UPDATE watch SET settings = ? WHERE id = ?').run(JSON.stringify({ ...read, states: own }), id);
	}
}

/** Numbers of pages and loads inside audits and the worklist. @returns audits, whose findings are found anew */
export function adoptAudits(db: Db, ids: Ids): number[] {
	const [pages, loads] = [ids.get('page')!, ids.get('load')!];
	const audits = [...(ids.get('audit')?.values() ?? [])];
	for (const id of audits) {
		const { design } = sql<{ design: string }>(db, 'SELECT design FROM audit WHERE id = ?').get(id)!;
		const read = JSON.parse(design) as { pages: { pageId: number | null }[] };
		for (const page of read.pages) page.pageId = page.pageId === null ? null : (pages.get(page.pageId) ?? null);
		sql(db, 'UPDATE audit SET design = ? WHERE id = ?').run(JSON.stringify(read), id);
	}
	for (const id of ids.get('finding')?.values() ?? []) {
		const { cause } = sql<{ cause: string }>(db, 'SELECT cause FROM finding WHERE id = ?').get(id)!;
		const read = JSON.parse(cause) as { pageIds?: number[]; example?: { finding?: { load?: number } } };
		const pageIds = read.pageIds?.flatMap((page) => pages.get(page) ?? []);
		if (read.example?.finding?.load !== undefined)
			read.example.finding.load = loads.get(read.example.finding.load) ?? 0;
		sql(db, 'UPDATE finding SET cause = ? WHERE id = ?').run(JSON.stringify({ ...read, pageIds }), id);
	}
	return audits;
}

export const rowsOfClient = (db: Db, { name, where }: Table, clientId: number): Row[] =>
	sql<Row>(db, `SELECT * FROM "${name}" WHERE ${where}`).all({ id: clientId });

export const artifactOf = (db: Db, hash: string) =>
	sql<{ media: string; bytes: Buffer }>(db, 'SELECT media, bytes FROM artifact WHERE sha256 = ?').get(hash);

export function insertArtifact(db: Db, hash: string, media: string, bytes: Uint8Array): void {
	sql(db, 'INSERT OR IGNORE INTO artifact (sha256, media, bytes) VALUES (?, ?, ?)').run(hash, media, bytes);
}

/** @returns the number of the new row */
export function insertInto(db: Db, { name }: Table, values: Row): number {
	const names = Object.keys(values);
	const { lastInsertRowid } = sql(
		db,
		`INSERT INTO "${name}" (${names.map((column) => `"${column}"`).join(', ')})
			VALUES (${names.map((column) => `@${column}`).join(', ')})`
	).run(values);
	return Number(lastInsertRowid);
}

export const isKeyTaken = (db: Db, key: string): boolean =>
	sql(db, 'SELECT 1 FROM visit_source WHERE key = ?').get(key) !== undefined;
