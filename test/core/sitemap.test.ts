import { expect } from 'chai';
import fc from 'fast-check';
import { SitemapReader } from '$core/formats/sitemap';

function read(text: string, { pieces = 1, most = 50_000 } = {}) {
	const reader = new SitemapReader(most);
	const size = Math.ceil(text.length / pieces);
	for (let from = 0; from < text.length; from += size) reader.write(text.slice(from, from + size));
	return reader.end();
}

/** The sample of sitemaps.org, "Sitemaps XML format", with hosts of our own. */
const SAMPLE = `<?xml version="1.0" encoding="UTF-8"?>
<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">
   <url>
      <loc>http://www.example.test/</loc>
      <lastmod>2005-01-01</lastmod>
      <changefreq>monthly</changefreq>
      <priority>0.8</priority>
   </url>
   <url>
      <loc>http://www.example.test/catalog?item=12&amp;desc=vacation_hawaii</loc>
      <changefreq>weekly</changefreq>
   </url>
   <url>
      <loc>http://www.example.test/catalog?item=73&amp;desc=vacation_new_zealand</loc>
      <lastmod>2004-12-23T18:00:15+00:00</lastmod>
      <priority>0.3</priority>
   </url>
</urlset>`;

/** The sample of an index, from the same place. */
const INDEX = `<?xml version="1.0" encoding="UTF-8"?>
<sitemapindex xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">
   <sitemap><loc>http://www.example.test/sitemap1.xml.gz</loc><lastmod>2004-10-01T18:23:17+00:00</lastmod></sitemap>
   <sitemap><loc>http://www.example.test/sitemap2.xml.gz</loc><lastmod>2005-01-01</lastmod></sitemap>
</sitemapindex>`;

describe('a sitemap', () => {
	it('lists pages, as the protocol’s own sample does', () => {
		expect(read(SAMPLE)).to.deep.equal({
			kind: 'pages',
			entries: [
				{ address: 'http://www.example.test/', lastmod: '2005-01-01' },
				{ address: 'http://www.example.test/catalog?item=12&desc=vacation_hawaii', lastmod: null },
				{
					address: 'http://www.example.test/catalog?item=73&desc=vacation_new_zealand',
					lastmod: '2004-12-23T18:00:15+00:00'
				}
			],
			faults: [],
			lines: {}
		});
	});

	it('or lists sitemaps, as the protocol’s sample of an index does', () => {
		const { kind, entries } = read(INDEX);
		expect([kind, entries.map(({ address }) => address)]).to.deep.equal([
			'index',
			['http://www.example.test/sitemap1.xml.gz', 'http://www.example.test/sitemap2.xml.gz']
		]);
	});

	it('or is plain text, an address a line', () => {
		expect(
			read('http://www.example.test/catalog?item=1\r\nhttp://www.example.test/catalog?item=11').entries
		).to.have.length(2);
		expect(read('https://a.test/').entries).to.deep.equal([{ address: 'https://a.test/', lastmod: null }]);
	});

	it('is read the same in any pieces', () => {
		fc.assert(
			fc.property(fc.integer({ min: 1, max: 400 }), fc.constantFrom(SAMPLE, INDEX), (pieces, text) => {
				expect(read(text, { pieces })).to.deep.equal(read(text));
			}),
			{ numRuns: 40, seed: 3 }
		);
	});

	it('may hold other vocabularies, which are none of its own', () => {
		const image = SAMPLE.replace('<urlset ', '<urlset xmlns:image="http://images.test/1" ').replace(
			'</loc>',
			'</loc><image:image><image:loc>http://www.example.test/big.jpg</image:loc></image:image>'
		);
		expect(read(image).entries[0]).to.deep.equal({ address: 'http://www.example.test/', lastmod: '2005-01-01' });
	});

	it('that is none says what it is', () => {
		expect(read('<!DOCTYPE html><html><body>Not found</body></html>').faults).to.deep.equal(['html']);
		expect(read('').faults).to.deep.equal(['empty']);
		expect(read('   \n ').faults).to.deep.equal(['empty']);
		expect(read('<rss version="2.0"><channel></channel></rss>').faults).to.deep.equal(['not-a-sitemap']);
		expect(read('{"pages":["/"]}').faults).to.deep.equal(['not-a-sitemap']);
		expect(read('<urlset></urlset>').faults).to.deep.equal(['empty']);
	});

	it('reads a raw “&” as what it is meant to be, and says in which line the first stood', () => {
		const entry = (address: string) => `<url><loc>${address}</loc></url>`;
		const xml = [
			'<?xml version="1.0"?>',
			'<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">',
			entry('https://own.test/a?x=1&amp;y=2'),
			entry('https://own.test/b?x=1&y=2'),
			entry('<![CDATA[https://own.test/c?x=1&y=2]]>'),
			entry('https://own.test/d'),
			'</urlset>'
		].join('\n');
		const { entries, faults, lines } = read(xml);
		expect(entries.map(({ address }) => address)).to.deep.equal([
			'https://own.test/a?x=1&y=2',
			'https://own.test/b?x=1&y=2',
			'https://own.test/c?x=1&y=2',
			'https://own.test/d'
		]);
		expect([faults, lines['raw-ampersand']]).to.deep.equal([['raw-ampersand'], 4]);
	});

	it('that breaks off keeps what came before', () => {
		const broken = read(SAMPLE.slice(0, SAMPLE.indexOf('vacation_new')));
		expect([broken.entries.length, broken.faults]).to.deep.equal([2, ['broken']]);
		const bad = read(SAMPLE.replace('</url>', '</ur>'));
		expect(bad.faults).to.deep.equal(['broken']);
		expect(bad.lines.broken).to.be.above(0);
	});

	it('is given up where it nests as none does, without reading on', () => {
		const nested = `<urlset><url>${'<a>'.repeat(400_000)}`;
		expect(read(nested, { pieces: 5 }).faults).to.deep.equal(['broken']);
		expect(read(`${' '.repeat(5_000_000)}<urlset>`, { pieces: 100 }).faults).to.deep.equal(['not-a-sitemap']);
		const line = read(`http://www.example.test/a\nhttp://www.example.test/${'b'.repeat(20_000_000)}`, { pieces: 400 });
		expect([line.entries.length, line.faults]).to.deep.equal([1, ['not-a-sitemap']]);
	});

	it('keeps the first 50,000 addresses, the most that the protocol allows', () => {
		const many = `<urlset>${Array.from({ length: 12 }, (_, i) => `<url><loc>http://a.test/${i}</loc></url>`).join('')}</urlset>`;
		const { entries, faults } = read(many, { most: 10 });
		expect([entries.length, faults]).to.deep.equal([10, ['too-many']]);
	});
});
