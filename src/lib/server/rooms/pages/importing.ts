/** Files of pages that the analyst gives: traffic tables and sitemaps. Read from the disk, a piece at a time. */
import { createReadStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { LineDecoder } from '$core/formats/textLines';
import { headerRowOf, LOOKED_AT_ROWS } from '$core/formats/headerRow';
import {
	guessColumns,
	TrafficReader,
	type TrafficColumns,
	type TrafficOptions,
	type TrafficTable
} from '$core/pages/traffic';
import { hostsOf } from '../clients/sites';
import type { Db } from '../../base/db/connection';
import { NotPossible } from '../../base/refusal';
import { saveTraffic } from './commands';
import { type Saved } from './queries/changes';
import { csvLines, decodedLines } from './csvLines';
import { keepGathered, saveGathering } from './gathering';
import { saveProposals } from './proposals';
import { gatherFile } from './sitemaps';
import { existingSite } from '../clients/view';

export interface TrafficResult extends Saved, Omit<TrafficTable, 'pages'> {
	/** Pages that the table names. */
	pages: number;
	visits: number;
}

/**
 * Read a traffic table and keep it with the pages of a site.
 * @param columns null to go by the names of the columns
 * @param header place of the heading among the lines that are not empty, from 0; null to look for it
 * @throws NotPossible when it cannot be told which column holds the addresses
 */
export async function importTraffic(
	db: Db,
	siteId: number,
	file: string,
	columns: TrafficColumns | null,
	header: number | null = null
): Promise<TrafficResult> {
	const site = existingSite(db, siteId);
	const table = await readTraffic(
		createReadStream(file),
		{ hosts: hostsOf(site), scheme: site.scheme },
		{ columns, header }
	);
	if (table.pages.length === 0) throw new NotPossible(422, whyNothing(table, site.host), 'file');
	const { pages, ...rest } = table;
	return db.transaction(() => {
		const saved = saveTraffic(db, siteId, table);
		saveProposals(db, siteId);
		const left = { foreign: rest.skipped.foreign, bad: rest.skipped['no-address'], over: saved.over };
		saveGathering(db, siteId, {
			what: 'traffic',
			asked: rest.lines,
			found: pages.length,
			saved,
			left,
			problems: [],
			isDone: true
		});
		const visits = pages.reduce((sum, page) => sum + page.visits, rest.restVisits);
		return { ...saved, ...rest, pages: pages.length, visits };
	})();
}

function whyNothing({ lines, skipped }: TrafficTable, host: string): string {
	if (lines === 0) return 'This file has no lines below its heading. Choose the file that your program exported.';
	if (skipped.foreign > 0)
		return `Not one of its ${lines} lines is of ${host}: ${skipped.foreign} are of other hosts. Choose the site of the file, or add its host to this site.`;
	return `Not one of its ${lines} lines has an address in the column that was chosen. Choose the column that holds addresses or paths.`;
}

type TableSite = Pick<TrafficOptions, 'hosts' | 'scheme'>;
/** What is known of the table; null to find it out. */
interface TableLayout {
	columns: TrafficColumns | null;
	header: number | null;
}

/** @param bytes of the file @throws NotPossible when no column looks like addresses */
export async function readTraffic(bytes: Readable, site: TableSite, layout: TableLayout): Promise<TrafficTable> {
	let reader: TrafficReader | null = null;
	const first: string[][] = [];
	for await (const rows of csvLines(decodedLines(bytes, new LineDecoder())))
		for (const cells of rows) {
			if (cells.every((cell) => cell.trim() === '')) continue;
			if (reader) reader.line(cells);
			else if (first.push(cells) > LOOKED_AT_ROWS) reader = beginTable(first, site, layout);
		}
	if (!first.length) return new TrafficReader({ columns: NO_COLUMNS, ...site }).end();
	return (reader ?? beginTable(first, site, layout)).end();
}

const NO_COLUMNS: TrafficColumns = { address: 0, visits: null, conversions: null, revenue: null };

/** What stands above the heading is left aside; a line that has an address itself is no heading. */
function beginTable(first: readonly string[][], site: TableSite, { columns, header }: TableLayout): TrafficReader {
	const at = Math.min(header ?? headerOf(first), first.length - 1);
	const cells = first[at]!;
	const guessed = columns ?? guessColumns(cells) ?? columnsOfBareTable(cells);
	if (!guessed)
		throw new NotPossible(
			422,
			`No column looks like addresses. The file begins with: ${cells.slice(0, 6).join(' | ').slice(0, 200)}. Choose the column that holds them.`,
			'columns'
		);
	const reader = new TrafficReader({ columns: guessed, ...site });
	if (isAddress(cells[guessed.address])) reader.line(cells);
	for (const row of first.slice(at + 1)) reader.line(row);
	return reader;
}

function headerOf(first: readonly string[][]): number {
	const named = headerRowOf(first, (cells) => guessColumns(cells) !== null);
	return named ?? headerRowOf(first, (cells) => cells.some(isAddress)) ?? 0;
}

const isAddress = (cell: string | undefined) => /^(https?:\/\/|\/)/i.test((cell ?? '').trim());

/** A table without a heading: an address, and a number after it. */
function columnsOfBareTable(cells: readonly string[]): TrafficColumns | null {
	const address = cells.findIndex(isAddress);
	if (address < 0) return null;
	const visits = cells.findIndex((cell, i) => i !== address && /^[\d.,\s]+$/.test(cell.trim()));
	return { ...NO_COLUMNS, address, visits: visits < 0 ? null : visits };
}

/** Read the file of a sitemap and keep its pages with a site. What was wrong with it stands with the site. */
export async function importSitemap(
	db: Db,
	siteId: number,
	file: string,
	name: string
): Promise<Saved & { pages: number }> {
	const gathered = await gatherFile(name, await readFile(file), hostsOf(existingSite(db, siteId)));
	return { ...keepGathered(db, siteId, 'file', gathered), pages: gathered.pages.length };
}
