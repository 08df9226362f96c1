/** Lines of a CSV file as its text comes, a block at a time: a stream of single lines costs ten times as much. */
import type { Readable } from 'node:stream';
import Papa from 'papaparse';
import type { LineDecoder } from '$core/formats/textLines';
import { NotPossible } from '../../base/refusal';

/** No line of a table is longer, one in quotes that goes on over line ends neither (house). */
const LONGEST_LINE = 1_000_000;
/** By so much text it is known what parts the columns. */
const LOOKED_AT = 100_000;

/**
 * Rows of a table in blocks; the parser finds out what parts its columns (comma, semicolon, tab, bar).
 * @throws NotPossible for a line that no table has
 */
export async function* csvLines(texts: AsyncIterable<string>): AsyncGenerator<string[][]> {
	let parser: Papa.Parser | null = null;
	let rest = '';
	let lines = 0;
	for await (const text of texts) {
		checkLines(text, lines + rest.split('\n').length - 1);
		rest += text;
		if (!parser && rest.length < LOOKED_AT) continue;
		parser ??= parserFor(rest);
		// The last row may go on: in quotes even over line ends (RFC 4180, section 2.6).
		const { data, meta } = parser.parse(rest, 0, true) as Block;
		rest = rest.slice(meta.cursor);
		lines += data.length;
		if (rest.length > LONGEST_LINE) throw tooLong(lines + 1);
		yield data;
	}
	parser ??= parserFor(rest);
	yield (parser.parse(rest, 0, false) as Block).data;
}

/** A line that stands in one piece of text: whole ones come together. */
function checkLines(text: string, linesBefore: number): void {
	if (text.length <= LONGEST_LINE) return;
	const at = text.split('\n').findIndex((line) => line.length > LONGEST_LINE);
	if (at >= 0) throw tooLong(linesBefore + at + 1);
}

const tooLong = (line: number) =>
	new NotPossible(
		422,
		`Line ${line} is longer than a million characters, or has a quotation mark that is never closed: this is no table. Choose the file that your program exported.`,
		'file'
	);

interface Block {
	data: string[][];
	meta: { cursor: number };
}

function parserFor(text: string): Papa.Parser {
	const { delimiter, linebreak } = Papa.parse(text.slice(0, LOOKED_AT), { preview: 20, skipEmptyLines: true }).meta;
	return new Papa.Parser({ delimiter, newline: linebreak as '\n' });
}

/** Text of a file as its bytes come. */
export async function* decodedLines(bytes: Readable, decoder: LineDecoder): AsyncGenerator<string> {
	for await (const chunk of bytes) {
		const text = decoder.write(chunk as Buffer);
		if (text) yield text;
	}
	const rest = decoder.end();
	if (rest) yield rest;
}
