/**
 * A whole client as one file: a zip with `client.json`, which holds the rows of every table that is the client's, and
 * its pictures and records under `artifacts/`, by their SHA-256. Rows get new numbers where they are read in.
 */
import { strFromU8, strToU8, unzip, zip, type AsyncZippable } from 'fflate';
import * as v from 'valibot';
import { nowIso, sql, type Db } from '../db/connection';
import { sha256 } from '../db/functions';
import { NotPossible } from '../http/refusal';
import { drawKey } from '../visits/key';
import { requestHistory } from '../work/catchUp';
import { existingClient } from './clients';

type Value = string | number | null;
type Row = Record<string, Value>;

interface Table {
	name: string;
	/** Rows that belong to client @id. */
	where: string;
	/** Columns that point at rows of other tables of the archive. */
	refers?: Record<string, string>;
	/** Its rows have numbers of their own, that are given anew. */
	isNumbered?: boolean;
	/** Text that names a row, as `arm:7`, in this column. */
	names?: string;
	/** Shared with other clients: a row that is there already is used. */
	isShared?: readonly string[];
}

const TRIALS = 'trial_id IN (SELECT id FROM trial WHERE client_id = @id)';
const SITES = 'site_id IN (SELECT id FROM site WHERE client_id = @id)';
const WATCHES = 'watch_id IN (SELECT id FROM watch WHERE client_id = @id)';
const READINGS = `reading_id IN (SELECT id FROM reading WHERE ${WATCHES} AND state = 'done')`;
const LOADS = `(load.client_id = @id OR load.trial_id IN (SELECT id FROM trial WHERE client_id = @id))`;
const OF_LOADS = `load_id IN (SELECT id FROM load WHERE ${LOADS})`;
/** Jobs that are done name what a load was asked for; others are not taken along. */
const JOBS = `id IN (SELECT job_id FROM load WHERE ${LOADS}) OR id IN (SELECT job_id FROM trial_place WHERE ${TRIALS})`;

/** In an order in which each table comes after those that it refers to. */
const TABLES: readonly Table[] = [
	{ name: 'client', where: 'id = @id', isNumbered: true },
	{ name: 'site', where: 'client_id = @id', isNumbered: true, refers: { client_id: 'client' } },
	{ name: 'visit_source', where: SITES, refers: { site_id: 'site' } },
	{ name: 'visitor_state', where: SITES, isNumbered: true, refers: { site_id: 'site' } },
	{ name: 'page', where: SITES, isNumbered: true, refers: { site_id: 'site' } },
	{
		name: 'page_skeleton',
		where: `page_id IN (SELECT id FROM page WHERE ${SITES})`,
		refers: { page_id: 'page' }
	},
	{
		name: 'worksheet_line',
		where: `page_id IN (SELECT id FROM page WHERE ${SITES})`,
		refers: { page_id: 'page' }
	},
	{ name: 'field_reading', where: SITES, isNumbered: true, refers: { site_id: 'site', page_id: 'page' } },
	{
		name: 'component',
		where: `id IN (SELECT component_id FROM site_component WHERE ${SITES})`,
		isNumbered: true,
		isShared: ['kind', 'name']
	},
	{ name: 'site_component', where: SITES, refers: { site_id: 'site', component_id: 'component' } },
	{ name: 'third_party', where: 'client_id = @id', refers: { client_id: 'client' } },
	{
		name: 'conditions_version',
		where: `hash IN (SELECT hash FROM trial_conditions WHERE ${TRIALS})
			OR hash IN (SELECT conditions_hash FROM load WHERE ${LOADS})`,
		isShared: ['hash']
	},
	{
		name: 'trial',
		where: 'client_id = @id',
		isNumbered: true,
		refers: { client_id: 'client', repeat_of: 'trial' }
	},
	{ name: 'arm', where: TRIALS, isNumbered: true, refers: { trial_id: 'trial', page_id: 'page' } },
	{ name: 'trial_conditions', where: TRIALS, refers: { trial_id: 'trial' } },
	{
		name: 'marker',
		where: `(${TRIALS} OR ${SITES})`,
		isNumbered: true,
		refers: { trial_id: 'trial', site_id: 'site' }
	},
	{ name: 'rejudged', where: TRIALS, refers: { trial_id: 'trial' } },
	{ name: 'watch', where: 'client_id = @id', isNumbered: true, refers: { client_id: 'client' } },
	{
		name: 'watched_page',
		where: WATCHES,
		isNumbered: true,
		refers: { watch_id: 'watch', page_id: 'page' }
	},
	{ name: 'reading', where: `(${WATCHES}) AND state = 'done'`, isNumbered: true, refers: { watch_id: 'watch' } },
	{ name: 'job', where: `(${JOBS})`, isNumbered: true, names: 'subject' },
	{ name: 'trial_place', where: TRIALS, refers: { job_id: 'job', trial_id: 'trial', arm_id: 'arm' } },
	{ name: 'settling', where: TRIALS, refers: { job_id: 'job', trial_id: 'trial', arm_id: 'arm' } },
	{
		name: 'load',
		where: LOADS,
		isNumbered: true,
		refers: { job_id: 'job', trial_id: 'trial', arm_id: 'arm', client_id: 'client' }
	},
	{
		name: 'reading_place',
		where: `job_id IN (SELECT job_id FROM load WHERE ${LOADS}) AND ${READINGS}`,
		refers: { job_id: 'job', reading_id: 'reading', watched_page_id: 'watched_page' }
	},
	{
		name: 'reading_figure',
		where: READINGS,
		refers: { reading_id: 'reading', watched_page_id: 'watched_page', load_id: 'load' }
	},
	{ name: 'host_seen', where: OF_LOADS, refers: { load_id: 'load' } },
	{
		name: 'derived',
		where: `subject IN (SELECT 'trial:' || id FROM trial WHERE client_id = @id)
			OR subject IN (SELECT 'site:' || id FROM site WHERE client_id = @id)`,
		names: 'subject'
	},
	{
		name: 'artifact_use',
		where: `owner IN (SELECT 'load:' || id FROM load WHERE ${LOADS})
			OR owner IN (SELECT 'trial:' || id FROM trial WHERE client_id = @id)`,
		names: 'owner'
	}
];

/** Names of the tables that an archive holds, or leaves out because they are computed. */
export const ARCHIVED: readonly string[] = TABLES.map(({ name }) => name);

const FORMAT = 'zafra-client';
const VERSION = 1;
const Archive = v.object({
	format: v.literal(FORMAT),
	version: v.literal(VERSION),
	madeAt: v.string(),
	media: v.record(v.string(), v.string()),
	tables: v.record(v.string(), v.array(v.record(v.string(), v.union([v.string(), v.number(), v.null()]))))
});

/** What was computed from loads is left out: it holds numbers of rows, and is worked out anew. */
const COMPUTED = new Set(['derived']);

/** @throws NotPossible while one of its trials runs */
export async function exportClient(db: Db, id: number): Promise<Uint8Array> {
	existingClient(db, id);
	if (sql(db, `SELECT 1 FROM trial WHERE client_id = ? AND status IN ('queued', 'running')`).get(id))
		throw new NotPossible(409, 'A trial of this client is running. Export it once that has ended.');
	const rows = (table: Table) => sql<Row>(db, `SELECT * FROM "${table.name}" WHERE ${table.where}`).all({ id });
	const kept = TABLES.filter(({ name }) => !COMPUTED.has(name));
	const tables = Object.fromEntries(kept.map((table) => [table.name, rows(table)]));
	const files: AsyncZippable = {};
	const media: Record<string, string> = {};
	for (const { sha256: hash } of tables.artifact_use!) {
		const artifact = sql<{ media: string; bytes: Buffer }>(
			db,
			'SELECT media, bytes FROM artifact WHERE sha256 = ?'
		).get(hash);
		if (!artifact || media[String(hash)]) continue;
		media[String(hash)] = artifact.media;
		// Pictures and records are compressed already.
		files[`artifacts/${hash}`] = [new Uint8Array(artifact.bytes), { level: 0 }];
	}
	const head = { format: FORMAT, version: VERSION, madeAt: nowIso(), media, tables };
	files['client.json'] = strToU8(JSON.stringify(head));
	return new Promise((resolve, reject) => zip(files, (error, packed) => (error ? reject(error) : resolve(packed))));
}

/** @returns the id of the client, which is a new one @throws NotPossible in words for what is no such file */
export async function importClient(db: Db, packed: Uint8Array): Promise<number> {
	const files = await unpack(packed);
	const archive = readHead(files['client.json']);
	return db.transaction(() => {
		db.pragma('defer_foreign_keys = ON');
		storeArtifacts(db, archive.media, files);
		const ids = insertRows(db, archive.tables);
		adoptDesigns(db, ids);
		adoptOrders(db, ids);
		for (const id of ids.get('watch')!.values()) requestHistory(db, id);
		return [...ids.get('client')!.values()][0]!;
	})();
}

function unpack(packed: Uint8Array): Promise<Record<string, Uint8Array>> {
	return new Promise((resolve, reject) => {
		const fail = () =>
			reject(new NotPossible(422, 'This file is no zip, or it is damaged. Choose a file that Zafra exported.', 'file'));
		unzip(packed, (error, files) => (error ? fail() : resolve(files)));
	});
}

function readHead(bytes: Uint8Array | undefined) {
	try {
		return v.parse(Archive, JSON.parse(strFromU8(bytes!)));
	} catch {
		throw new NotPossible(422, 'This zip holds no client of Zafra. Choose a file that Zafra exported.', 'file');
	}
}

function storeArtifacts(db: Db, media: Record<string, string>, files: Record<string, Uint8Array>): void {
	for (const [hash, type] of Object.entries(media)) {
		const bytes = files[`artifacts/${hash}`];
		if (!bytes || sha256(bytes) !== hash)
			throw new NotPossible(
				422,
				`The archive is damaged: artifacts/${hash.slice(0, 12)}… is missing or changed.`,
				'file'
			);
		sql(db, 'INSERT OR IGNORE INTO artifact (sha256, media, bytes) VALUES (?, ?, ?)').run(
			hash,
			type,
			Buffer.from(bytes)
		);
	}
}

type Ids = Map<string, Map<number, number>>;

/** Rows of all tables, numbered anew. @returns the new number of each row by its old one */
function insertRows(db: Db, tables: Record<string, Row[]>): Ids {
	const ids: Ids = new Map();
	for (const table of TABLES) {
		if (COMPUTED.has(table.name)) continue;
		const own = new Map<number, number>();
		ids.set(table.name, own);
		const columns = new Set(
			sql<{ name: string }>(db, `SELECT name FROM pragma_table_info('${table.name}')`)
				.all()
				.map(({ name }) => name)
		);
		for (const row of tables[table.name] ?? []) insertRow(db, table, row, columns, ids);
	}
	return ids;
}

function insertRow(db: Db, table: Table, row: Row, columns: ReadonlySet<string>, ids: Ids): void {
	const known = table.isShared && findShared(db, table, row);
	if (known) {
		if (table.isNumbered) ids.get(table.name)!.set(Number(row.id), Number(known.id));
		return;
	}
	const values = translated(db, table, row, ids);
	const names = Object.keys(values).filter((name) => columns.has(name));
	const insert = `INSERT OR IGNORE INTO "${table.name}" (${names.map((name) => `"${name}"`).join(', ')})
		VALUES (${names.map((name) => `@${name}`).join(', ')})`;
	const { lastInsertRowid } = sql(db, insert).run(values);
	if (table.isNumbered) ids.get(table.name)!.set(Number(row.id), Number(lastInsertRowid));
}

function findShared(db: Db, { name, isShared }: Table, row: Row): Row | undefined {
	const where = isShared!.map((column) => `"${column}" = @${column}`).join(' AND ');
	return sql<Row>(db, `SELECT * FROM "${name}" WHERE ${where}`).get(row);
}

function translated(db: Db, table: Table, row: Row, ids: Ids): Row {
	const values: Row = { ...row };
	if (table.isNumbered) delete values.id;
	for (const [column, target] of Object.entries(table.refers ?? {})) {
		const old = row[column];
		if (old != null) values[column] = ids.get(target)?.get(Number(old)) ?? null;
	}
	if (table.names) {
		const [what, old] = String(row[table.names]).split(':');
		const id = ids.get(what!)?.get(Number(old));
		values[table.names] = old === undefined ? String(row[table.names]) : `${what}:${id ?? 0}`;
	}
	if (table.name === 'client') values.name = freeName(db, String(row.name));
	// Two Zafras that watch the same pages would load and tell everything twice: the analyst resumes it here.
	if (table.name === 'watch') Object.assign(values, { state: 'paused', next_at: null });
	if (table.name === 'visit_source') values.key = freeKey(db, String(row.key));
	return values;
}

/** Two clients never have one name. */
function freeName(db: Db, name: string): string {
	const isTaken = (candidate: string) => sql(db, 'SELECT 1 FROM client WHERE name = ?').get(candidate) !== undefined;
	if (!isTaken(name)) return name;
	for (let n = 2; ; n++) if (!isTaken(`${name} (${n})`)) return `${name} (${n})`;
}

/** A site that comes to another Zafra keeps its script's key; a copy beside the original has one of its own. */
function freeKey(db: Db, key: string): string {
	return sql(db, 'SELECT 1 FROM visit_source WHERE key = ?').get(key) ? drawKey() : key;
}

/** Numbers of arms inside the design of a trial. What follows from its loads is worked out anew. */
function adoptDesigns(db: Db, ids: Ids): void {
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

/** Numbers of loads inside the orders of jobs: the load whose page was asked again. */
function adoptOrders(db: Db, ids: Ids): void {
	const ofLoad = sql<{ id: number; of: number }>(
		db,
		`SELECT id, "order" ->> 'of' AS of FROM job WHERE id IN (SELECT value FROM json_each(?)) AND "order" ->> 'of' IS NOT NULL`
	).all(JSON.stringify([...ids.get('job')!.values()]));
	for (const { id, of } of ofLoad)
		sql(db, `UPDATE job SET "order" = json_set("order", '$.of', CAST(? AS INTEGER)) WHERE id = ?`).run(
			ids.get('load')!.get(of) ?? null,
			id
		);
}
