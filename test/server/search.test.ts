import { expect } from 'chai';
import { search } from '../../src/lib/server/desk/search';
import { knownAddresses } from '../../src/lib/server/rooms/pages/queries/pages';
import { labLoad } from '../../src/lib/server/rooms/trials/timeLeft';
import { createTrial, startTrial } from '../../src/lib/server/rooms/trials/commands';
import { sql, type Db } from '../../src/lib/server/base/db/connection';
import { trialInput, useQueue } from '../support/queue';

describe('one search over everything', () => {
	const queue = useQueue();
	function fill(): Db {
		const { db } = queue.now;
		sql(db, "INSERT INTO client (id, name) VALUES (1, 'Skerry Line'), (2, 'Orrery Hall')").run();
		sql(
			db,
			"INSERT INTO site (id, client_id, host, name, role) VALUES (1, 1, 'skerry-line.test', 'Skerry Line', 'own')"
		).run();
		sql(db, "INSERT INTO page (site_id, url, type) VALUES (1, 'https://skerry-line.test/fares', 'listing')").run();
		const arms = [
			{ name: 'Without', url: 'https://skerry-line.test/timetable', baseline: true },
			{ name: 'With Parlour Bell', url: 'https://with-chat.skerry-line.test/timetable' }
		];
		createTrial(db, trialInput({ question: 'Did adding the CHAT make it slower?', clientId: 1, arms }));
		return db;
	}
	let db: Db;
	beforeEach(() => (db = fill()));
	const found = (query: string) => search(db, query).map(({ kind, text }) => `${kind}: ${text}`);

	it('finds clients, sites, pages and trials by names, words and addresses, in any case', () => {
		expect(found('skerry')).to.deep.equal([
			'client: Skerry Line',
			'site: Skerry Line',
			'page: https://skerry-line.test/fares',
			'trial: Did adding the CHAT make it slower?'
		]);
	});

	it('wants every word, anywhere', () => {
		expect(found('chat skerry')).to.deep.equal(['trial: Did adding the CHAT make it slower?']);
		expect(found('parlour')).to.deep.equal(['trial: Did adding the CHAT make it slower?']);
		expect(found('chat orrery')).to.deep.equal([]);
	});

	it('takes what is typed as text, and wants two letters', () => {
		expect(found('%')).to.deep.equal([]);
		expect(found("' OR 1=1 --")).to.deep.equal([]);
		expect(found('s')).to.deep.equal([]);
		expect(found('   ')).to.deep.equal([]);
	});

	it('leads to where each can be looked at', () => {
		const hits = search(db, 'skerry');
		expect(hits.map(({ href }) => href)).to.deep.equal([
			'/clients/1',
			'/clients/1/sites/1',
			'/pages?site=1&q=%2Ffares',
			'/trials/1'
		]);
	});

	it('offers a form the addresses that a client’s work knows, its pages first', () => {
		expect(knownAddresses(db, 1, 10)).to.deep.equal([
			{ url: 'https://skerry-line.test/fares', note: 'listing' },
			{ url: 'https://skerry-line.test/timetable', note: '' },
			{ url: 'https://with-chat.skerry-line.test/timetable', note: '' }
		]);
		expect(knownAddresses(db, 1, 1)).to.have.length(1);
		expect(knownAddresses(db, 2, 10)).to.deep.equal([]);
	});

	it('tells a form what the lab has before it', () => {
		expect(labLoad(db).queuedMs).to.equal(0);
		startTrial(db, 1);
		const { loadMs, queuedMs } = labLoad(db);
		// Two arms, three rounds.
		expect(queuedMs).to.equal(6 * loadMs);
	});
});
