/** Readings from a table that the analyst gives. */
import { headerRowOf } from '$core/formats/headerRow';
import { createReadStream } from 'node:fs';
import { decimalMarkOf } from '$core/formats/amounts';
import { LineDecoder } from '$core/formats/textLines';
import { guessReadingColumns, readingOfLine, type ReadingColumns, type ReadingFault } from '$core/field/csvReadings';
import { FIELD_METRICS } from '$core/field/histogram';
import { siteOfAddress } from '../clients/sites';
import { nowIso, type Db } from '../../base/db/connection';
import { NotPossible } from '../../base/refusal';
import { csvLines, decodedLines } from '../pages/csvLines';
import { newestEnd } from './gathering';
import { saveReading } from './queries/readings';
import { findPage } from './queries/importing';
import { sitesOf } from '../clients/view';

export interface ReadingsResult {
	lines: number;
	saved: number;
	/** Lines that were left aside, by why; `unknown` names no page of the client's lists. */
	skipped: Record<ReadingFault | 'unknown', number>;
}

/** A table of readings has a line for each page, device and window: far more are another table. */
const MOST_LINES = 200_000;

/** @param columns null to go by the heading @throws NotPossible when no column looks like addresses */
export async function importReadings(
	db: Db,
	clientId: number,
	file: string,
	columns: ReadingColumns | null,
	header: number | null = null
): Promise<ReadingsResult> {
	const rows: string[][] = [];
	for await (const block of csvLines(decodedLines(createReadStream(file), new LineDecoder()))) {
		rows.push(...block.filter((cells) => cells.some((cell) => cell.trim() !== '')));
		if (rows.length > MOST_LINES) throw new NotPossible(422, `This table has more than ${MOST_LINES} lines.`, 'file');
	}
	const at = header ?? headerRowOf(rows, (cells) => guessReadingColumns(cells) !== null) ?? 0;
	const [head = [], ...lines] = rows.slice(at);
	const found = columns ?? guessReadingColumns(head);
	if (!found)
		throw new NotPossible(
			422,
			`No column looks like addresses. The file begins with: ${head.join(' | ').slice(0, 200)}.`,
			'columns'
		);
	return db.transaction(() => saveLines(db, clientId, lines, found))();
}

function saveLines(db: Db, clientId: number, lines: readonly string[][], columns: ReadingColumns): ReadingsResult {
	const skipped = { 'no-address': 0, 'no-device': 0, 'no-day': 0, 'no-figures': 0, implausible: 0, unknown: 0 };
	const figures = FIELD_METRICS.flatMap((metric) => columns[metric] ?? []);
	const mark = decimalMarkOf(
		figures.flatMap((column) => lines.map((cells) => cells[column] ?? '')),
		'.'
	);
	const sites = sitesOf(db, clientId);
	const usual = newestEnd(nowIso());
	let saved = 0;
	for (const cells of lines) {
		const read = readingOfLine(cells, columns, mark, usual);
		if ('fault' in read) {
			skipped[read.fault]++;
			continue;
		}
		const site = siteOfAddress(sites, read.url);
		const pageId = site && read.scope === 'page' ? findPage(db, site.id, read.url) : null;
		if (!site || (read.scope === 'page' && pageId === null)) {
			skipped.unknown++;
			continue;
		}
		const { device, from, until, metrics } = read;
		saveReading(db, site.id, { pageId, device, source: 'csv', from, until, metrics });
		saved++;
	}
	if (!saved) throw new NotPossible(422, whyNothing(lines.length, skipped), 'file');
	return { lines: lines.length, saved, skipped };
}

function whyNothing(lines: number, skipped: ReadingsResult['skipped']): string {
	if (lines === 0) return 'This file has no lines below its heading.';
	const [reason] = Object.entries(skipped).sort(([, a], [, b]) => b - a)[0]!;
	const advice: Record<keyof typeof skipped, string> = {
		'no-address': 'the column that was chosen holds no addresses',
		'no-device': 'no column says whether it is phone or desktop',
		'no-day': 'the last day of the window is not written as 2026-11-20',
		'no-figures': 'no column holds the 75th percentile of a metric',
		implausible: 'the figures are too large for their unit',
		unknown: 'they are of no page in this client’s lists: add the pages first'
	};
	return `Not one of its ${lines} lines could be taken: ${advice[reason as keyof typeof skipped]}.`;
}
