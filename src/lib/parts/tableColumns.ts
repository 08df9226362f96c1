/** The heading of a table that was chosen, read in the browser, and which column says what. */
import Papa from 'papaparse';
import { LineDecoder } from '$core/formats/textLines';

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

/** Places of columns as a form holds them; empty for none. */
export function placesOf(columns: Readonly<Record<string, number | null>> | null): Record<string, string> {
	const entries = Object.entries(columns ?? {}).map(([key, place]) => [key, place === null ? '' : String(place)]);
	return Object.fromEntries(entries);
}

export const columnsQuery = (places: Readonly<Record<string, string>>): string =>
	new URLSearchParams(Object.entries(places).filter(([, place]) => place !== '')).toString();
