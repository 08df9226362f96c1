/** The heading of a table that was chosen, read in the browser, and which column says what. */
import Papa from 'papaparse';
import { LineDecoder } from '$core/formats/textLines';
import { guessColumns, TRAFFIC_FIELDS, type TrafficField } from '$core/formats/traffic';

const LOOKED_AT_BYTES = 65_536;

export interface FirstLines {
	head: string[];
	/** The first line below the heading. */
	first: string[];
}

export async function firstLines(file: Blob): Promise<FirstLines> {
	const decoder = new LineDecoder();
	const bytes = new Uint8Array(await file.slice(0, LOOKED_AT_BYTES).arrayBuffer());
	const text = decoder.write(bytes) || decoder.end();
	const [head = [], first = []] = Papa.parse<string[]>(text, { skipEmptyLines: true, preview: 2 }).data;
	return { head, first };
}

/** Places of the columns that their names suggest, as the form holds them; empty for none. */
export function columnsFrom(head: readonly string[]): Record<TrafficField, string> {
	const guessed = guessColumns(head);
	const places = TRAFFIC_FIELDS.map((field) => [field, guessed?.[field] == null ? '' : String(guessed[field])]);
	return Object.fromEntries(places) as Record<TrafficField, string>;
}

export const columnsQuery = (places: Record<TrafficField, string>): string =>
	new URLSearchParams(Object.entries(places).filter(([, place]) => place !== '')).toString();
