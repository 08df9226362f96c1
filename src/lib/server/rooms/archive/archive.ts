/**
 * A whole client as one file: a zip with `client.json`, which holds the rows of every table that is the client's, and
 * its pictures and records under `artifacts/`, by their SHA-256. Rows get new numbers where they are read in. Secrets
 * stay where they are; what comes in is checked row by row before anything is stored.
 */
import * as v from 'valibot';
import { requestFindings } from '../audits/commands';
import { readFile } from 'node:fs/promises';
import { strFromU8, strToU8, zip, type AsyncZippable } from 'fflate';
import { unzipWithin, ZipFault, type ZipBounds } from '$core/formats/unzip';
import { pageKey } from '$core/pages/address';
import type { LeftSecret } from '$core/wording/leftSecrets';
import { nowIso, type Db } from '../../base/db/connection';
import { NotPossible } from '../../base/refusal';
import { drawKey } from '../visits/key';
import { requestHistory } from '../watch/history';
import { ArchiveFaults, checkedTables } from './check';
import { checkedFiles, checkUses, type ArchiveFile } from './files';
import { SECRET_KINDS, withoutSecrets, type Tables } from './secrets';
import { withSubjects } from './earlier';
import { ARCHIVE_TABLES, type ArchiveRow as Row, type ArchiveTable as Table } from './tables';
import { existingClient } from '../clients/clients';
import { saveProposals } from '../pages/proposals';
import {
	underWayOf,
	findShared,
	freeName,
	adoptDesigns,
	type Ids,
	adoptOrders,
	adoptExtended,
	adoptAudits,
	adoptVisitors,
	rowsOfClient,
	artifactOf,
	insertArtifact,
	insertInto,
	isKeyTaken
} from './queries/archive';
import { sitesOf } from '../clients/view';

/** Names of the tables that an archive holds, or leaves out because they are computed. */
export const ARCHIVED: readonly string[] = ARCHIVE_TABLES.map(({ name }) => name);

const FORMAT = 'zafra-client';

const VERSION = 1;

/** Pictures and records are packed already, so that they grow no more than by what the door takes (64 MB). */
const BOUNDS: ZipBounds = { entries: 100_000, entryBytes: 64_000_000, totalBytes: 128_000_000 };

const Archive = v.object({
	format: v.literal(FORMAT),
	version: v.literal(VERSION),
	madeAt: v.string(),
	media: v.record(v.pipe(v.string(), v.regex(/^[0-9a-f]{64}$/)), v.string()),
	/** Secrets that stayed behind; archives from before had them inside. */
	left: v.optional(
		v.pipe(
			v.array(v.object({ kind: v.picklist(SECRET_KINDS), name: v.pipe(v.string(), v.maxLength(300)) })),
			v.maxLength(10_000)
		),
		[]
	),
	tables: v.record(v.string(), v.array(v.record(v.string(), v.union([v.string(), v.number(), v.null()]))))
});

/** What was computed from loads is left out: it holds numbers of rows, and is worked out anew. */
const COMPUTED = new Set(['derived']);

/** @throws NotPossible while one of its trials runs or is paused */
export async function exportClient(db: Db, id: number): Promise<Uint8Array> {
	existingClient(db, id);
	if (underWayOf(db, id).length > 0)
		throw new NotPossible(409, 'A trial of this client is running or paused. Export it once that has ended.');
	const rows = (table: Table) => rowsOfClient(db, table, id);
	const kept = ARCHIVE_TABLES.filter(({ name }) => !COMPUTED.has(name));
	const { tables, left } = withoutSecrets(Object.fromEntries(kept.map((table) => [table.name, rows(table)])));
	const files: AsyncZippable = {};
	const media: Record<string, string> = {};
	for (const { sha256: hash } of tables.artifact_use!) {
		const artifact = artifactOf(db, String(hash));
		if (!artifact || media[String(hash)]) continue;
		media[String(hash)] = artifact.media;
		// Pictures and records are compressed already.
		files[`artifacts/${hash}`] = [new Uint8Array(artifact.bytes), { level: 0 }];
	}
	const head = { format: FORMAT, version: VERSION, madeAt: nowIso(), media, left, tables };
	files['client.json'] = strToU8(JSON.stringify(head));
	return new Promise((resolve, reject) => zip(files, (error, packed) => (error ? reject(error) : resolve(packed))));
}

export interface ImportedClient {
	/** A new one. */
	id: number;
	/** Secrets that did not come along: they must be written anew. */
	left: LeftSecret[];
}

/** @param file path of the zip */
export async function importClientFile(db: Db, file: string): Promise<ImportedClient> {
	const imported = await importClient(db, await readFile(file));
	for (const site of sitesOf(db, imported.id)) saveProposals(db, site.id);
	return imported;
}

/** @throws NotPossible in words for what is no such file, with a list of what is wrong with one */
export async function importClient(db: Db, packed: Uint8Array): Promise<ImportedClient> {
	const entries = unpack(packed);
	const { media, left, tables: given } = readHead(entries.get('client.json'));
	const raw = withSubjects(given);
	const faults = new ArchiveFaults();
	const files = checkedFiles(media, entries, faults);
	const tables = checkedTables(raw, faults);
	if (faults.list.length === 0) await checkUses(tables, files, faults);
	if (faults.list.length > 0) throw refusedFor(faults);
	return { id: storeAll(db, tables, files), left };
}

const refusedFor = ({ list, isFull }: ArchiveFaults) =>
	new NotPossible(
		422,
		`This archive cannot be taken; nothing was stored. ${isFull ? 'The first faults' : 'Wrong in it'}: ${list.join(' · ')}`,
		'file'
	);

/** All of it or nothing. */
function storeAll(db: Db, tables: Tables, files: ReadonlyMap<string, ArchiveFile>): number {
	try {
		return db.transaction(() => {
			db.pragma('defer_foreign_keys = ON');
			for (const [hash, { media, bytes }] of files) insertArtifact(db, hash, media, bytes);
			const ids = insertRows(db, tables);
			adoptDesigns(db, ids);
			adoptOrders(db, ids);
			adoptExtended(db, ids);
			adoptVisitors(db, ids);
			for (const audit of adoptAudits(db, ids)) requestFindings(db, audit);
			for (const id of ids.get('watch')!.values()) requestHistory(db, id);
			return [...ids.get('client')!.values()][0]!;
		})();
	} catch (error) {
		const { code, message } = error as { code?: string; message: string };
		if (!code?.startsWith('SQLITE_CONSTRAINT')) throw error;
		throw new NotPossible(
			422,
			`This archive cannot be taken; nothing was stored. Its rows contradict each other: ${message}.`,
			'file'
		);
	}
}

const ZIP_WORDS: Record<ZipFault['code'], string> = {
	damaged: 'This file is no zip, or it is damaged. Choose a file that Zafra exported.',
	'too-many': 'This zip has more files than any client of Zafra. Choose a file that Zafra exported.',
	'entry-too-large': 'A file in this zip is larger than 64 MB unpacked, which is the most that Zafra takes.',
	'too-large': 'This zip holds more than 128 MB unpacked, which is the most that Zafra takes.',
	'odd-name': 'This zip has a file with a name that no client of Zafra has. Choose a file that Zafra exported.',
	double: 'This zip holds the same file twice. Choose a file that Zafra exported.',
	unlisted: 'The list of this zip does not name what it holds. Choose a file that Zafra exported.'
};

function unpack(packed: Uint8Array): Map<string, Uint8Array> {
	try {
		return unzipWithin(packed, BOUNDS);
	} catch (error) {
		if (error instanceof ZipFault) throw new NotPossible(422, ZIP_WORDS[error.code], 'file');
		throw error;
	}
}

function readHead(bytes: Uint8Array | undefined) {
	try {
		return v.parse(Archive, JSON.parse(strFromU8(bytes!)));
	} catch {
		throw new NotPossible(422, 'This zip holds no client of Zafra. Choose a file that Zafra exported.', 'file');
	}
}

/** Rows of all tables, numbered anew. @returns the new number of each row by its old one */
function insertRows(db: Db, tables: Tables): Ids {
	const ids: Ids = new Map();
	for (const table of ARCHIVE_TABLES) {
		if (COMPUTED.has(table.name)) continue;
		ids.set(table.name, new Map());
		for (const row of tables[table.name] ?? []) insertRow(db, table, row, ids);
	}
	return ids;
}

function insertRow(db: Db, table: Table, row: Row, ids: Ids): void {
	const shared = table.isShared && findShared(db, table, row);
	if (shared) {
		if (table.isNumbered) ids.get(table.name)!.set(Number(row.id), Number(shared.id));
		return;
	}
	const values = translated(db, table, row, ids);
	const id = insertInto(db, table, values);
	if (table.isNumbered) ids.get(table.name)!.set(Number(row.id), id);
}

function translated(db: Db, table: Table, row: Row, ids: Ids): Row {
	const values: Row = { ...row };
	if (table.isNumbered) delete values.id;
	for (const [column, target] of Object.entries(table.refers ?? {})) {
		const old = row[column];
		if (old != null) values[column] = ids.get(target)?.get(Number(old)) ?? null;
	}
	if (table.names) {
		const [kind, id] = [`${table.names}_kind`, `${table.names}_id`];
		values[id] = ids.get(String(row[kind]))?.get(Number(row[id])) ?? 0;
	}
	return { ...values, ...ownValues(db, table.name, row) };
}

/** What is not taken over as it came. */
function ownValues(db: Db, table: string, row: Row): Row {
	switch (table) {
		case 'client':
			return { name: freeName(db, String(row.name)) };
		case 'page':
			return { key: pageKey(String(row.url)) };
		case 'watch':
			// Two Zafras that watch the same pages would load and tell everything twice: the analyst resumes it here.
			return { state: 'paused', next_at: null };
		case 'visit_source':
			return { key: freeKey(db, String(row.key)) };
		case 'job':
			return { lab_id: null, lease_until: null, not_before: null };
		default:
			return {};
	}
}

/** A site that comes to another Zafra keeps its script's key; a copy beside the original has one of its own. */
function freeKey(db: Db, key: string): string {
	return isKeyTaken(db, key) ? drawKey() : key;
}
