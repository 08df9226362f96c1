import { expect } from 'chai';
import { Readable } from 'node:stream';
import { LineDecoder } from '$core/formats/textLines';
import { NotPossible } from '../../src/lib/server/base/refusal';
import { csvLines, decodedLines } from '../../src/lib/server/rooms/pages/csvLines';

/** Rows of a file that comes in pieces of 64 kB, as from the disk. */
async function rowsOf(text: string): Promise<string[][]> {
	const bytes = Buffer.from(text);
	const pieces = Array.from({ length: Math.ceil(bytes.length / 65_536) }, (_, i) =>
		bytes.subarray(i * 65_536, (i + 1) * 65_536)
	);
	const rows: string[][] = [];
	for await (const block of csvLines(decodedLines(Readable.from(pieces), new LineDecoder())))
		for (const row of block) rows.push(row);
	return rows;
}

async function refusalOf(text: string): Promise<string> {
	try {
		await rowsOf(text);
		return 'read';
	} catch (error) {
		expect(error).to.be.instanceOf(NotPossible);
		return (error as NotPossible).message;
	}
}

describe('lines of a table', () => {
	it('come with quotes that go on over line ends (RFC 4180, section 2.6)', async () => {
		const rows = await rowsOf('page,visits\r\n"/a\r\nb",2\r\n/c,3\r\n');
		expect(rows.slice(0, 3)).to.deep.equal([
			['page', 'visits'],
			['/a\r\nb', '2'],
			['/c', '3']
		]);
	});

	it('have an end: one line of 60 MB, or a quote that is never closed, is named and refused', async () => {
		expect(await refusalOf(`page,visits\n/a,1\n/${'x'.repeat(60_000_000)},2\n`)).to.include('Line 3 is longer');
		const open = `page,visits\n/a,1\n"/b,2\n${'/c,3\n'.repeat(2_000_000)}`;
		expect(await refusalOf(open)).to.include('Line 3 is longer');
		expect(await refusalOf(`page,visits\n${'/c,3\n'.repeat(400_000)}`)).to.equal('read');
	});
});
