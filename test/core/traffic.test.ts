import { expect } from 'chai';
import { decimalMarkOf, parseAmount, parseCount } from '$core/formats/amounts';
import { LineDecoder } from '$core/formats/textLines';
import { guessColumns, TrafficReader, type TrafficColumns } from '$core/pages/traffic';

describe('numbers of other programs', () => {
	it('are read with comma or point before decimals, whatever parts their thousands', () => {
		for (const [text, mark, amount] of [
			['1,234', '.', 1234],
			['1.234,5', ',', 1234.5],
			['1 234,50 €', ',', 1234.5],
			['$1,234.50', '.', 1234.5],
			['1’234.5', '.', 1234.5],
			['-3', '.', -3],
			['12 %', '.', 12],
			['EUR 7', '.', 7]
		] as const)
			expect(parseAmount(text, mark), text).to.equal(amount);
		for (const text of ['', '-', 'n/a', '1e5', '12:30']) expect(parseAmount(text, '.'), text).to.equal(null);
	});

	it('show which mark stands before decimals', () => {
		expect(decimalMarkOf(['1.234,5'], '.')).to.equal(',');
		expect(decimalMarkOf(['1,234.50'], ',')).to.equal('.');
		expect(decimalMarkOf(['7', '0,75'], '.')).to.equal(',');
		expect(decimalMarkOf(['1.234.567'], '.')).to.equal(',');
		// Three digits after one mark tell nothing.
		expect(decimalMarkOf(['1.234', '999'], '.')).to.equal('.');
	});

	it('that are counts have no decimals', () => {
		expect([parseCount('1.234', '.'), parseCount('1,234', ','), parseCount('12', '.')]).to.deep.equal([1234, 1234, 12]);
	});
});

describe('the columns of a traffic table', () => {
	it('are known by their names, in English and Spanish', () => {
		expect(guessColumns(['Page', 'Page views', 'Bookings', 'Revenue'])).to.deep.equal({
			address: 0,
			visits: 1,
			conversions: 2,
			revenue: 3
		});
		expect(guessColumns(['Visitas', 'Dirección de la página'])).to.deep.equal({
			address: 1,
			visits: 0,
			conversions: null,
			revenue: null
		});
		expect(guessColumns(['Month', 'Bounce'])).to.equal(null);
	});
});

describe('a traffic table', () => {
	const COLUMNS: TrafficColumns = { address: 0, visits: 1, conversions: 2, revenue: 3 };
	function table(lines: string[][], options: Partial<ConstructorParameters<typeof TrafficReader>[0]> = {}) {
		const reader = new TrafficReader({ columns: COLUMNS, hosts: ['own.test'], ...options });
		for (const line of lines) reader.line(line);
		return reader.end();
	}

	it('joins lines of one page: tracking parameters, last slashes, mere paths', () => {
		const { pages, joined } = table([
			['https://own.test/fares?utm_source=letter', '10', '1', '5,50'],
			['/fares/', '30', '2', '7,25'],
			['own.test/fares', '5', '', '']
		]);
		expect(joined).to.equal(2);
		// The address that most visitors use; 10 + 30 + 5 visits, 5.50 + 7.25 of revenue.
		expect(pages).to.deep.equal([{ url: 'https://own.test/fares/', visits: 45, conversions: 3, revenue: 12.75 }]);
	});

	it('leaves totals, other hosts and lines without a number aside, and counts them', () => {
		const { pages, skipped, lines } = table([
			['/', '1,000', '', ''],
			['https://other.test/', '5', '', ''],
			['Total', '1,005', '', ''],
			['/odd', 'many', '', ''],
			['']
		]);
		expect(pages.map(({ url, visits }) => [url, visits])).to.deep.equal([['https://own.test/', 1000]]);
		expect([skipped, lines]).to.deep.equal([{ 'no-address': 1, foreign: 1, 'no-number': 1 }, 4]);
	});

	it('keeps the busiest pages and counts the visits of the rest', () => {
		const many = Array.from({ length: 25 }, (_, i) => [`/p${i}`, String(i + 1), '', '']);
		const { pages, restVisits } = table(many, { most: 10 });
		expect(pages).to.have.length(10);
		const kept = pages.reduce((sum, { visits }) => sum + visits, 0);
		// 1 + 2 + ... + 25 = 325.
		expect(kept + restVisits).to.equal(325);
	});

	it('keeps markup in an address as text', () => {
		const { pages } = table([['/<script>alert(1)</script>', '3', '', '']]);
		expect(pages[0]!.url).to.equal('https://own.test/%3Cscript%3Ealert(1)%3C/script%3E');
	});
});

describe('bytes of a text file', () => {
	const decode = (bytes: Uint8Array, size = bytes.length) => {
		const decoder = new LineDecoder();
		let text = '';
		for (let from = 0; from < bytes.length; from += size) text += decoder.write(bytes.subarray(from, from + size));
		return text + decoder.end();
	};
	const utf8 = (text: string) => new TextEncoder().encode(text);

	it('are UTF-8 with or without a byte order mark, in any pieces', () => {
		const text = 'página;1\ncañón;2\n';
		for (const size of [1, 2, 3, 7, 100]) {
			expect(decode(utf8(text), size), `${size}`).to.equal(text);
			expect(decode(new Uint8Array([0xef, 0xbb, 0xbf, ...utf8(text)]), size), `mark, ${size}`).to.equal(text);
		}
	});

	it('or Latin-1, even line by line in one file', () => {
		const latin = new Uint8Array([...'p'].map((c) => c.charCodeAt(0)).concat(0xe1, 0x67, 0x0a));
		expect(decode(new Uint8Array([...utf8('niño\n'), ...latin, ...utf8('fin')]))).to.equal('niño\npág\nfin');
	});

	it('are read in time that grows with their number, whatever the length of their lines', () => {
		// Joined anew with each piece, 30 MB in pieces of 1 kB would be copied 15,000 times.
		const line = new Uint8Array(30_000_000).fill(0x61);
		expect(decode(line, 1000)).to.have.length(30_000_000);
	});

	it('or UTF-16 with its mark', () => {
		const little = new Uint8Array(Buffer.from('\ufeffvía\t7\n', 'utf16le'));
		for (const size of [1, 3, 50]) expect(decode(little, size)).to.equal('vía\t7\n');
	});
});

describe('amounts of a table', () => {
	it('beyond all visits of the web are none', () => {
		expect(parseAmount('1e23', '.')).to.equal(null);
		expect(parseAmount(`1${'0'.repeat(23)}`, '.')).to.equal(null);
		expect(parseCount('1,000,000,000,000,000,000,000,000', '.')).to.equal(null);
		expect(parseCount('12,840', '.')).to.equal(12_840);
	});
});
