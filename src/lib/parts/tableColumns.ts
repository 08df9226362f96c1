/** The heading of a table that was chosen, read in the browser, and which column says what. */
import Papa from 'papaparse';
import { headerRowOf, LOOKED_AT_ROWS } from '$core/formats/headerRow';
import { LineDecoder } from '$core/formats/textLines';

const LOOKED_AT_BYTES = 65_536;

export interface FirstLines {
	/** Lines that are not empty, from the first. */
	rows: string[][];
	/** Place of the heading among them. */
	header: number;
}

/** @param isHeading whether cells are names of columns that are wanted */
export async function firstLines(file: Blob, isHeading: (cells: readonly string[]) => boolean): Promise<FirstLines> {
	const decoder = new LineDecoder();
	const bytes = new Uint8Array(await file.slice(0, LOOKED_AT_BYTES).arrayBuffer());
	const text = decoder.write(bytes) || decoder.end();
	const rows = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy', preview: LOOKED_AT_ROWS + 1 }).data;
	// Without names that are known: the first line that has columns, rather than a title above them.
	return { rows, header: headerRowOf(rows, isHeading) ?? headerRowOf(rows, () => true) ?? 0 };
}

/** Places of columns as a form holds them; empty for none. */
export function placesOf(columns: Readonly<Record<string, number | null>> | null): Record<string, string> {
	const entries = Object.entries(columns ?? {}).map(([key, place]) => [key, place === null ? '' : String(place)]);
	return Object.fromEntries(entries);
}

export const columnsQuery = (places: Readonly<Record<string, string>>): string =>
	new URLSearchParams(Object.entries(places).filter(([, place]) => place !== '')).toString();
