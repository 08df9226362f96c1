import { expect } from 'chai';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { existingSite } from '../../src/lib/server/rooms/clients/queries/sites';
import { changePages, deletePages, pastePages, saveTraffic } from '../../src/lib/server/rooms/pages/commands';
import { chooseOnly, savePages } from '../../src/lib/server/rooms/pages/queries/changes';
import { importTraffic } from '../../src/lib/server/rooms/pages/importing';
import { countPages, listPages } from '../../src/lib/server/rooms/pages/queries/pages';
import { pagesView, sampleView } from '../../src/lib/server/rooms/pages/view';
import { clientWithSite } from '../support/clients';
import { refusal, useQueue } from '../support/queue';

describe('pages of a site', () => {
	const q = useQueue();
	let siteId: number;
	beforeEach(() => (siteId = clientWithSite(q.now.db).siteId));
	const urls = (which: '' | 'chosen' | 'quiet' = '') =>
		listPages(q.now.db, { siteId, which }, 100).map(({ url }) => url.replace('https://own.test', ''));
	const idOf = (path: string) => q.now.value<number>('SELECT id FROM page WHERE url = ?', `https://own.test${path}`);

	it('are pasted as addresses or paths; each once, whatever its form', () => {
		const pasted = pastePages(
			q.now.db,
			siteId,
			'/fares, https://own.test/fares/?utm_source=x\nown.test/contact; https://other.test/x\nTotal'
		);
		expect(pasted).to.deep.equal({ added: 2, known: 1, over: 0, bad: ['Total'], foreign: ['https://other.test/x'] });
		expect(urls()).to.deep.equal(['/fares', '/contact']);
	});

	it('take a type and a place in the sample in bulk, and are found by them', () => {
		pastePages(q.now.db, siteId, '/a\n/b\n/c');
		changePages(q.now.db, [idOf('/a'), idOf('/b')], { type: ' Article ' });
		changePages(q.now.db, [idOf('/b')], { isChosen: true });
		expect(countPages(q.now.db, { siteId, type: 'article' })).to.equal(2);
		expect(countPages(q.now.db, { siteId, type: '-' })).to.equal(1);
		expect(urls('chosen')).to.deep.equal(['/b']);
		chooseOnly(q.now.db, siteId, [idOf('/a'), idOf('/c')]);
		expect(urls('chosen')).to.deep.equal(['/a', '/c']);
		changePages(q.now.db, [idOf('/a')], { type: null });
		expect(countPages(q.now.db, { siteId, type: 'article' })).to.equal(1);
		expect(deletePages(q.now.db, [idOf('/a'), 999])).to.equal(1);
		expect(refusal(() => changePages(q.now.db, [idOf('/b')], { type: 'x'.repeat(61) }))).to.match(
			/^422 A page type has at most 60/
		);
	});

	it('take their visits from the newest traffic table alone, and keep what the analyst said of them', () => {
		savePages(q.now.db, siteId, [{ url: 'https://own.test/old', lastmod: '2026-01-01', type: 'article' }], 'sitemap');
		const page = (path: string, visits: number) => ({
			url: `https://own.test${path}`,
			visits,
			conversions: null,
			revenue: null
		});
		const table = { restVisits: 50, lines: 2, joined: 0, skipped: { 'no-address': 0, foreign: 0, 'no-number': 0 } };
		saveTraffic(q.now.db, siteId, { ...table, pages: [page('/', 130), page('/old', 20)] });
		expect(
			listPages(q.now.db, { siteId }, 9).map(({ url, visits, share, type, source }) => [
				url,
				visits,
				share,
				type,
				source
			])
		).to.deep.equal([
			['https://own.test/', 130, 0.65, null, 'traffic'],
			['https://own.test/old', 20, 0.1, 'article', 'sitemap']
		]);
		saveTraffic(q.now.db, siteId, { ...table, pages: [page('/', 10)], restVisits: 0 });
		expect(listPages(q.now.db, { siteId }, 9).map(({ visits }) => visits)).to.deep.equal([10, 0]);
		expect(existingSite(q.now.db, siteId).restVisits).to.equal(0);
	});

	it('show what the choice covers and what one more would add, and propose one that is enough', () => {
		savePages(
			q.now.db,
			siteId,
			[
				{ url: 'https://own.test/', type: 'home' },
				{ url: 'https://own.test/a', type: 'article' },
				{ url: 'https://own.test/b', type: 'article' }
			],
			'sitemap'
		);
		changePages(q.now.db, [idOf('/')], { isChosen: true });
		const { coverage, next, proposal } = sampleView(q.now.db, existingSite(q.now.db, siteId));
		expect(coverage).to.deep.include({ pages: 1, traffic: null });
		expect(next).to.include({ newType: 'article', url: 'https://own.test/a' });
		expect(proposal!.ids).to.deep.equal([idOf('/'), idOf('/a')]);
		chooseOnly(q.now.db, siteId, proposal!.ids);
		expect(sampleView(q.now.db, existingSite(q.now.db, siteId)).proposal).to.equal(null);
	});

	it('have proposed types until somebody names them', () => {
		pastePages(q.now.db, siteId, '/\n/news/a\n/news/b\n/what');
		const view = () => pagesView(q.now.db, existingSite(q.now.db, siteId), {}, 1);
		expect(view().proposals.map(({ type, pages }) => [type, pages])).to.deep.equal([
			['article', 2],
			['home', 1]
		]);
		changePages(q.now.db, [idOf('/news/a'), idOf('/news/b')], { type: 'news' });
		expect(view().proposals.map(({ type }) => type)).to.deep.equal(['home']);
		deletePages(q.now.db, [idOf('/')]);
		expect(view().proposals, 'of pages that are gone').to.deep.equal([]);
	});

	describe('from a traffic file', () => {
		const file = (bytes: string | Uint8Array) => {
			const name = join(q.now.folder, 'traffic.csv');
			writeFileSync(name, bytes);
			return name;
		};
		const problem = (bytes: string, columns = null) =>
			importTraffic(q.now.db, siteId, file(bytes), columns).then(
				() => '',
				(error: Error) => error.message
			);

		it('are read whatever parts its columns, quotes and lines (RFC 4180, sections 2.5 to 2.7)', async () => {
			const rows = 'Page,Visits,Name\r\n"/a","1,200","He said ""go"""\r\n"/b",30,"two\r\nlines"\r\n';
			const result = await importTraffic(q.now.db, siteId, file(rows), null);
			expect(result).to.include({ pages: 2, visits: 1230, lines: 2, added: 2 });
			const tabs = 'Path\tVisits\n/a\t5\n/c\t7\n';
			expect(await importTraffic(q.now.db, siteId, file(tabs), null)).to.include({
				pages: 2,
				visits: 12,
				added: 1,
				known: 1
			});
			const semicolons = Buffer.from('P\u00e1gina;Visitas\n/caf\u00e9;1.234\n', 'latin1');
			await importTraffic(q.now.db, siteId, file(semicolons), null);
			expect(listPages(q.now.db, { siteId, words: 'caf' }, 1)[0]).to.include({
				url: 'https://own.test/caf%C3%A9',
				visits: 1234
			});
		});

		it('are read below what a program writes above the heading', async () => {
			const above = 'Report of pages\n1 Oct 2026 - 31 Oct 2026\n\n';
			const rows = file(`${above}Page,Page views\n/a,12\n/b,30\n`);
			expect(await importTraffic(q.now.db, siteId, rows, null)).to.include({ pages: 2, visits: 42, lines: 2 });
			const odd = file(`${above}What,How often\n/a,12\n`);
			const columns = { address: 0, visits: 1, conversions: null, revenue: null };
			expect(await importTraffic(q.now.db, siteId, odd, columns, 2)).to.include({ pages: 1, visits: 12, lines: 1 });
		});

		it('are read by the columns that the analyst chose, or without a heading', async () => {
			const columns = { address: 1, visits: 0, conversions: null, revenue: null };
			expect(await importTraffic(q.now.db, siteId, file('n;what\n5;/x\n'), columns)).to.include({
				pages: 1,
				visits: 5
			});
			expect(await importTraffic(q.now.db, siteId, file('/y;9\n/z;1\n'), null)).to.include({ pages: 2, visits: 10 });
		});

		it('are refused in words that say what to do, and nothing is changed', async () => {
			expect(await problem('Month,Bounce\nMay,3\n')).to.match(/No column looks like addresses.*Choose the column/);
			expect(await problem('Page,Visits\nhttps://other.test/,3\n')).to.match(/1 are of other hosts\. Choose the site/);
			expect(await problem('Page,Visits\n')).to.match(/no lines below its heading/);
			expect(await problem('')).to.match(/no lines below its heading/);
			expect(countPages(q.now.db, { siteId })).to.equal(0);
		});
	});
});
