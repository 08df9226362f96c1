/** Lines of a CSV file as its text comes, a block at a time: a stream of single lines costs ten times as much. */
import type { Readable } from 'node:stream';
import Papa from 'papaparse';
import type { LineDecoder } from '$core/formats/textLines';

/** By so much text it is known what parts the columns. */
const LOOKED_AT = 100_000;

/** Rows of a table in blocks; the parser finds out what parts its columns (comma, semicolon, tab, bar). */
export async function* csvLines(texts: AsyncIterable<string>): AsyncGenerator<string[][]> {
	let parser: Papa.Parser | null = null;
	let rest = '';
	for await (const text of texts) {
		rest += text;
		if (!parser && rest.length < LOOKED_AT) continue;
		parser ??= parserFor(rest);
		// The last row may go on: in quotes even over line ends (RFC 4180, section 2.6).
		const { data, meta } = parser.parse(rest, 0, true) as Block;
		rest = rest.slice(meta.cursor);
		yield data;
	}
	parser ??= parserFor(rest);
	yield (parser.parse(rest, 0, false) as Block).data;
}

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
