/**
 * How the database answers what pages ask: every statement that was prepared while all screens were rendered, explained
 * (SQLite, EXPLAIN QUERY PLAN). A table that grows with the years of work is read whole only where it is said why.
 */
import { expect } from 'chai';
import { ADDRESSES } from '../support/svelte/addresses';
import { demoDb, screen } from '../support/svelte/screens';

/** Tables that grow with every load, page or day. */
const LARGE = [
	'artifact_use',
	'derived',
	'field_reading',
	'host_seen',
	'job',
	'load',
	'page',
	'reading_figure',
	'reading_place',
	'trial_place'
];

/** Whole reads that are meant: the beginning of the statement, and why. */
const ALLOWED: Record<string, string> = {
	'load: SELECT id, "score"': 'once, when a folder is opened: what an older recipe scored',
	'load: SELECT avg(lab_ms)': 'from the newest back, so many and no more',
	'load: SELECT started_at AS at, machine_speed': 'from the newest back, so many and no more',
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
		const whole = statements.flatMap((text) => {
			const parameters = Object.fromEntries([...text.matchAll(/[@:$](\w+)/g)].map(([, name]) => [name!, null]));
			const places = text.match(/\?/g)?.map(() => null) ?? [];
			const plan = db.prepare(`EXPLAIN QUERY PLAN ${text}`).all(...(places.length ? places : [parameters])) as {
				detail: string;
			}[];
			const scans = plan.flatMap(({ detail }) => /^SCAN (\w+)/.exec(detail)?.[1] ?? []);
			return scans.filter((table) => LARGE.includes(table)).map((table) => `${table}: ${text.replace(/\s+/g, ' ')}`);
		});
		const unsaid = whole.filter((line) => !Object.keys(ALLOWED).some((start) => line.startsWith(start)));
		expect(unsaid).to.deep.equal([]);
	});
});
