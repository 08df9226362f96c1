import { expect } from 'chai';
import { insertScenario } from '../../src/lib/server/demo/clients';
import { findClientByName } from '../../src/lib/server/rooms/clients/queries/clients';
import { sitesOf } from '../../src/lib/server/rooms/clients/queries/sites';
import { savePages } from '../../src/lib/server/rooms/pages/queries/changes';
import { findPages } from '../../src/lib/server/rooms/watch/queries/pageChoice';
import { pageOffer } from '../../src/lib/server/rooms/watch/pageChoice';
import { useQueue } from '../support/queue';

describe('choosing pages for a watch or a standing', () => {
	const q = useQueue();
	const ALL = { words: '', type: '', site: 0 };

	it('finds any of thousands by a part of its address, and says how many there are', () => {
		const { db } = q.now;
		insertScenario(db);
		const client = findClientByName(db, 'Skerry Line')!;
		const own = sitesOf(db, client).find(({ host }) => host === 'skerry-line.test')!;
		const before = findPages(db, client, 'watch', ALL).total;
		const many = Array.from({ length: 3012 }, (_, i) => ({ url: `https://${own.host}/harbour/${i}`, type: 'listing' }));
		savePages(db, own.id, many, 'sitemap');
		const all = findPages(db, client, 'watch', ALL);
		expect([all.total, all.pages.length]).to.deep.equal([before + 3012, 24]);
		// Those that the client's work looks at come first.
		expect(all.pages[0]!.isChosen).to.equal(true);
		const found = findPages(db, client, 'watch', { ...ALL, words: 'harbour/2999' });
		expect(found.pages.map(({ url }) => url)).to.deep.equal([`https://${own.host}/harbour/2999`]);
		expect(findPages(db, client, 'watch', { ...ALL, type: 'listing' }).total).to.be.at.least(3012);
		const rival = sitesOf(db, client).find(({ role }) => role === 'competitor')!;
		expect(findPages(db, client, 'watch', { ...ALL, site: rival.id }).total).to.equal(0);
		expect(findPages(db, client, 'standing', { ...ALL, site: rival.id }).total).to.be.greaterThan(0);
	});

	it('offers home against home: the client’s page and those of its competitors, by type', () => {
		const { db } = q.now;
		insertScenario(db);
		const { pairs, usual, types } = pageOffer(db, findClientByName(db, 'Skerry Line')!, 'standing');
		const home = pairs.find(({ type }) => type === 'home')!;
		expect(home.pages.map(({ url }) => new URL(url).host)).to.deep.equal([
			'skerry-line.test',
			'northsound-crossings.test',
			'puffin-ferries.test'
		]);
		expect(home.pages.every(({ url }) => new URL(url).pathname === '/')).to.equal(true);
		expect(types).to.include('home');
		expect(usual).to.deep.equal([]);
	});
});
