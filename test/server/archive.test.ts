import { expect } from 'chai';
import { strToU8, zipSync } from 'fflate';
import { ARCHIVED, exportClient, importClient } from '../../src/lib/server/rooms/archive/archive';
import { existingClient } from '../../src/lib/server/rooms/clients/clients';
import { sitesOf } from '../../src/lib/server/rooms/clients/queries/sites';
import { saveState } from '../../src/lib/server/rooms/clients/queries/visitorStates';
import { failureReason } from '$core/wording/failure';
import { findPicture, findRecord, insertLoad } from '../../src/lib/server/rooms/loads/loads';
import { loneLoads } from '../../src/lib/server/rooms/loads/queries/loads';
import { saveReading } from '../../src/lib/server/rooms/field/queries/readings';
import { pastePages } from '../../src/lib/server/rooms/pages/commands';
import { putOnSite, saveComponent } from '../../src/lib/server/rooms/setups/queries/components';
import { saveHostNote } from '../../src/lib/server/rooms/loads/queries/register';
import { deriveJudgement, judgementOf } from '../../src/lib/server/rooms/trials/judgement';
import { conditionsOfTrial } from '../../src/lib/server/rooms/trials/queries/trial';
import { findTrial } from '../../src/lib/server/rooms/trials/trial';
import type { Db } from '../../src/lib/server/base/db/connection';
import { clientWithSite } from '../support/clients';
import { measuredLoad, TestQueue, useQueue } from '../support/queue';
import * as v from 'valibot';
import { LibraryComponent } from '$core/setups/component';

/** Rows without their numbers, in order. */
function rowsOf(db: Db, table: string, leftOut: string[]): Record<string, unknown>[] {
	const rows = db.prepare(`SELECT * FROM "${table}"`).all() as Record<string, unknown>[];
	return rows.map((row) => Object.fromEntries(Object.entries(row).filter(([name]) => !leftOut.includes(name))));
}

/** As a picture begins (RIFF container, WebP). */
const picture = (n: number) => Buffer.from(`RIFF0000WEBPpicture ${n}`);

const NUMBERS = [
	'id',
	'client_id',
	'site_id',
	'page_id',
	'component_id',
	'trial_id',
	'arm_id',
	'job_id',
	'load_id',
	'inputs',
	'repeat_of'
];
const ALIKE = [
	'client',
	'site',
	'page',
	'component',
	'site_component',
	'third_party',
	'field_reading',
	'arm',
	'trial_conditions',
	'marker',
	'load',
	'conditions_version'
];

describe('a client as one file', () => {
	const q = useQueue();

	/** A client with all that one can have. */
	function furnish(): { clientId: number; trialId: number } {
		const { db } = q.now;
		const { clientId, siteId } = clientWithSite(db, 'own.test', 'Skerry Line');
		pastePages(db, siteId, '/a\n/b');
		saveState(db, siteId, { name: 'Signed in', url: null, steps: [], cookies: [{ name: 'a', value: 'b' }] });
		const component = saveComponent(
			db,
			null,
			v.parse(LibraryComponent, { kind: 'plugin', name: 'Larder', jobs: ['page cache'] })
		);
		putOnSite(db, { siteId, componentId: component, version: '2.1', tier: 'paid' });
		const reading = { device: 'phone', source: 'panel', from: '2026-10-24', until: '2026-11-20' } as const;
		saveReading(db, siteId, { ...reading, pageId: null, metrics: null });
		saveReading(db, siteId, {
			...reading,
			pageId: q.now.value('SELECT max(id) FROM page'),
			metrics: { lcp: { p75: 1, shares: null, bins: [] } }
		});
		saveHostNote(db, clientId, { host: 'chat.test', owner: 'Parlour Bell', purpose: 'chat', isConfirmed: true });
		// Another client's trial comes first, so that numbers differ.
		q.now.make();
		q.now.runAll();
		const trialId = q.now.make({
			clientId,
			rounds: 8,
			arms: [
				{ name: 'A', url: 'https://own.test/a', baseline: true },
				{ name: 'B', url: 'https://own.test/b' }
			]
		});
		for (let slot = q.now.lease(), n = 0; slot; slot = q.now.lease(), n++)
			q.now.finish(
				slot,
				{ url: 'https://own.test/a', figures: { lcp: slot.armId % 2 ? 2000 + n : 1500 + n } },
				picture(n)
			);
		db.prepare(`INSERT INTO marker (trial_id, at, words) VALUES (?, '2026-11-01T00:00:00.000Z', 'Larder on')`).run(
			trialId
		);
		deriveJudgement(db, trialId);
		return { clientId, trialId };
	}

	it('loses nothing on the way there and back: rows, records, pictures, answers', async () => {
		const { clientId, trialId } = furnish();
		const { db } = q.now;
		const answer = judgementOf(db, findTrial(db, trialId)!);
		const packed = await exportClient(db, clientId);
		const other = new TestQueue();
		try {
			const { id } = await importClient(other.db, packed);
			expect(existingClient(other.db, id)).to.deep.include({ name: 'Skerry Line' });
			const there = other.value<number>('SELECT id FROM trial');
			for (const table of ALIKE) {
				const own = rowsOf(db, table, NUMBERS).filter((row) => table !== 'load' || row.url === 'https://own.test/a');
				const mine = table === 'arm' ? own.filter(({ url }) => String(url).startsWith('https://own.test')) : own;
				const here = table === 'trial_conditions' ? mine.slice(-1) : mine;
				expect(rowsOf(other.db, table, NUMBERS), table).to.deep.equal(here);
			}
			const [load] = other.db.prepare('SELECT id FROM load ORDER BY id').pluck().all() as number[];
			expect(findRecord(other.db, load!)!.url).to.equal('https://own.test/a');
			expect(findPicture(other.db, load!)!.equals(picture(0))).to.equal(true);
			const again = judgementOf(other.db, findTrial(other.db, there)!);
			const verdicts = (judgement: typeof answer) =>
				judgement.results.map(({ metric, verdict, shift }) => [metric, verdict, shift]);
			expect(verdicts(again)).to.deep.equal(verdicts(answer));
		} finally {
			other.end();
		}
	});

	it('knows of every table whether it is a client’s', () => {
		/** The machine’s, the agency’s, or files that go by their use. */
		const others = ['artifact', 'conditions', 'fact', 'lab', 'quiet_minute', 'agency'];
		/** Stay with the Zafra that wrote them: their bundles are files of their own. */
		const reports = ['report', 'report_version', 'report_share'];
		/** Told where they were found; a watch that was read in is worked out anew. */
		const notices = ['watch_notice', 'notice_delivery'];
		const tables = q.now.db
			.prepare(`SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'`)
			.pluck()
			.all() as string[];
		/** Deleted, and kept for a month where it was. */
		const deleted = ['bin'];
		const left = [...ARCHIVED, ...others, ...reports, ...notices, ...deleted];
		expect(tables.filter((name) => !left.includes(name))).to.deep.equal([]);
	});

	it('comes in beside the client it came from, under a name of its own, with the shared library', async () => {
		const { clientId } = furnish();
		const { id } = await importClient(q.now.db, await exportClient(q.now.db, clientId));
		expect(existingClient(q.now.db, id).name).to.equal('Skerry Line (2)');
		expect(sitesOf(q.now.db, id)).to.have.length(1);
		expect(q.now.value('SELECT count(*) FROM component')).to.equal(1);
		expect(q.now.value('SELECT count(*) FROM trial WHERE client_id = ?', id)).to.equal(1);
	});

	it('keeps to which load further loads of its page belong', async () => {
		const { clientId, trialId } = furnish();
		const { db } = q.now;
		const load = q.now.value<number>('SELECT id FROM load WHERE trial_id = ? LIMIT 1', trialId);
		const [conditions] = conditionsOfTrial(db, trialId);
		const job = db.prepare(
			`INSERT INTO job (kind, subject_kind, subject_id, "order", of_load, status, created_at)
				VALUES ('load', 'client', ?, ?, ?, 'done', '2026-11-01T00:00:00Z')`
		);
		const order = JSON.stringify({ url: 'https://own.test/a', steps: [], conditions });
		const jobId = Number(job.run(clientId, order, load).lastInsertRowid);
		db.prepare('UPDATE load SET job_id = ? WHERE id = (SELECT max(id) FROM load)').run(jobId);
		const other = new TestQueue();
		try {
			await importClient(other.db, await exportClient(db, clientId));
			const ofClient = "FROM job WHERE subject_kind = 'client'";
			expect(other.value(`SELECT of_load ${ofClient}`)).to.equal(other.value('SELECT min(id) FROM load'));
			expect(other.value(`SELECT subject_id ${ofClient}`)).to.equal(other.value('SELECT id FROM client'));
		} finally {
			other.end();
		}
	});

	it('brings loads that failed, stored by code, with their words', async () => {
		const { clientId } = clientWithSite(q.now.db);
		const stored = { jobId: null, slot: null, conditionId: 'desktop', conditionsHash: null, clientId };
		const failed = { status: 'failed' as const, failure: failureReason('unresolvable', 'nowhere.test') };
		insertLoad(q.now.db, stored, measuredLoad({ ...failed, url: 'https://nowhere.test/' }));
		const id = await importClient(q.now.db, await exportClient(q.now.db, clientId)).then((taken) => taken.id);
		const [load] = loneLoads(q.now.db, { clientId: id }, 10, 0);
		expect(load!.reason).to.match(/^The host nowhere\.test was not found\. Check the spelling/);
		expect(findRecord(q.now.db, load!.id)!.failure).to.deep.equal(failed.failure);
	});

	it('is refused in words when it is none, or was changed', async () => {
		const problem = (bytes: Uint8Array) =>
			importClient(q.now.db, bytes).then(
				() => '',
				(error: Error) => error.message
			);
		expect(await problem(strToU8('no zip'))).to.match(/no zip, or it is damaged/);
		expect(await problem(zipSync({ 'a.txt': strToU8('x') }))).to.match(/holds no client of Zafra/);
		const head = {
			format: 'zafra-client',
			version: 1,
			madeAt: '',
			media: { ['a'.repeat(64)]: 'image/webp' },
			tables: {}
		};
		const changed = zipSync({
			'client.json': strToU8(JSON.stringify(head)),
			[`artifacts/${'a'.repeat(64)}`]: strToU8('x')
		});
		expect(await problem(changed)).to.match(/artifacts\/aaaaaaaaaaaa…: it is missing or changed/);
		expect(q.now.value('SELECT count(*) FROM client')).to.equal(0);
	});
});
