/**
 * How the database answers what pages ask: every statement that was prepared while all screens were rendered, explained
 * (SQLite, EXPLAIN QUERY PLAN). A table that grows with the years of work is read whole only where it is said why.
 */
import { expect } from 'chai';
import { ADDRESSES } from '../support/svelte/addresses';
import { demoDb, screen } from '../support/svelte/screens';
import { wholeReads } from '../support/wholeReads';

/** Whole reads that are meant: the beginning of the statement, and why. */
const ALLOWED: Record<string, string> = {
	'load: SELECT id, "score"': 'once, when a folder is opened: what an older recipe scored',
	'page: SELECT url, note FROM': 'of all clients at once, where none is chosen',
	'page: SELECT page.id, site_id AS owner': 'words anywhere in an address: no index knows them'
};

describe('what screens ask the database', () => {
	it('is answered by an index, but where it is said why not', async function () {
		this.timeout(300_000);
		const db = await demoDb();
		// As the pages have it: what a test imports at its head is another copy of the module.
		const { preparedOn } = await import('../../src/lib/server/base/db/statements');
		for (const address of ADDRESSES) await screen(address);
		const statements = preparedOn(db).filter((text) => /^\s*(SELECT|WITH)/i.test(text));
		expect(statements.length).to.be.above(100);
		expect(wholeReads(db, statements, ALLOWED)).to.deep.equal([]);
	});
});
