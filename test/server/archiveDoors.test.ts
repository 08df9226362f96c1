import { expect } from 'chai';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { NOT_SHOWN } from '$core/load/conditions/conditions';
import { ROW_SCHEMAS } from '../../src/lib/server/rooms/archive/check';
import { exportClient, importClient, ARCHIVED } from '../../src/lib/server/rooms/archive/archive';
import { saveState } from '../../src/lib/server/rooms/clients/queries/visitorStates';
import { findConditions } from '../../src/lib/server/rooms/conditions/saved';
import { saveConditions } from '../../src/lib/server/rooms/conditions/queries/saved';
import { startTrial } from '../../src/lib/server/rooms/trials/commands';
import { clientWithSite } from '../support/clients';
import { refusal, TestQueue, useQueue } from '../support/queue';
import * as v from 'valibot';
import { WatchInput } from '$core/watch/input';
import { pastePages } from '../../src/lib/server/rooms/pages/commands';
import { listPages } from '../../src/lib/server/rooms/pages/queries/pages';
import { createWatch } from '../../src/lib/server/rooms/watch/commands';

type Row = Record<string, string | number | null>;
interface Head {
	media: Record<string, string>;
	tables: Record<string, Row[]>;
	left: { kind: string; name: string }[];
}

const headOf = (packed: Uint8Array) => JSON.parse(strFromU8(unzipSync(packed)['client.json']!)) as Head;

/** The archive with its rows changed. */
function changed(packed: Uint8Array, change: (head: Head) => void): Uint8Array {
	const files = unzipSync(packed);
	const head = headOf(packed);
	change(head);
	return zipSync({ ...files, 'client.json': strToU8(JSON.stringify(head)) });
}

describe('what an archive of a client may bring', () => {
	const q = useQueue();
	const SECRETS = [
		'headersecret',
		'cookiesecret',
		'passwordsecret',
		'statesecret',
		'typedsecret',
		'previewsecret',
		'hooksecret'
	];

	/** A client with a secret in every column that can hold one. */
	function furnish(): { clientId: number; trialId: number } {
		const { db } = q.now;
		const { clientId, siteId } = clientWithSite(db, 'own.test', 'Skerry Line');
		saveConditions(db, {
			...findConditions(db, 'desktop')!,
			id: 'behind',
			name: 'Behind a log-in',
			headers: [{ name: 'X-Preview', value: 'headersecret' }],
			cookies: [{ name: 'session', value: 'cookiesecret' }],
			authentication: { username: 'ana', password: 'passwordsecret' }
		});
		const state = {
			name: 'Signed in',
			url: null,
			steps: [{ type: 'typedsecret', into: '#password' }],
			cookies: [{ name: 'basket', value: 'statesecret' }]
		};
		saveState(db, siteId, state);
		db.prepare(`UPDATE site SET preview_host = 'preview.own.test', preview_access = 'ana:previewsecret'`).run();
		pastePages(db, siteId, '/a\n/b');
		const pages = listPages(db, { siteId }, 10).map(({ id }) => id);
		const notices = { hook: 'https://hooks.test/hooksecret' };
		createWatch(db, { ...v.parse(WatchInput, { clientId, name: 'Weekly', pages, notices }), kind: 'watch' });
		const trialId = q.now.make({
			clientId,
			conditions: ['behind'],
			rounds: 2,
			arms: [
				{ name: 'A', url: 'https://own.test/a', baseline: true, before: state },
				{ name: 'B', url: 'https://own.test/b', before: state }
			]
		});
		for (let placed = q.now.lease(); placed; placed = q.now.lease())
			q.now.finish(placed, { url: 'https://own.test/a' }, Buffer.from('RIFF0000WEBPx'));
		return { clientId, trialId };
	}

	/** What an import says; "taken" where it goes through. */
	async function answer(packed: Uint8Array): Promise<string> {
		const other = new TestQueue();
		try {
			await importClient(other.db, packed);
			return 'taken';
		} catch (error) {
			expect(other.value('SELECT count(*) FROM client'), 'nothing is stored').to.equal(0);
			expect(other.value('SELECT count(*) FROM artifact')).to.equal(0);
			return (error as Error).message;
		} finally {
			other.end();
		}
	}

	it('has a schema for every table that it brings', () => {
		expect([...ROW_SCHEMAS].sort()).to.deep.equal(ARCHIVED.filter((name) => name !== 'derived').sort());
	});

	it('has no secret in any column, and says which stayed behind', async () => {
		const { clientId } = furnish();
		const stored = q.now.db.serialize().toString('latin1');
		for (const secret of SECRETS) expect(stored.includes(secret), `${secret} is in the database`).to.equal(true);
		const packed = await exportClient(q.now.db, clientId);
		for (const [name, bytes] of Object.entries(unzipSync(packed)))
			for (const secret of SECRETS) expect(Buffer.from(bytes).includes(secret), `${secret} in ${name}`).to.equal(false);
		expect(headOf(packed).left).to.have.deep.members([
			{ kind: 'header', name: 'X-Preview' },
			{ kind: 'cookie', name: 'session' },
			{ kind: 'password', name: 'ana' },
			{ kind: 'typed', name: 'Signed in' },
			{ kind: 'cookie', name: 'basket' },
			{ kind: 'preview', name: 'own.test' },
			{ kind: 'hook', name: 'Weekly' }
		]);
		const other = new TestQueue();
		try {
			const { left } = await importClient(other.db, packed);
			expect(left).to.have.length(7);
			const ofTrial = 'FROM conditions_version WHERE hash IN (SELECT hash FROM trial_conditions)';
			const body = other.value<string>(`SELECT body ${ofTrial}`);
			expect(JSON.parse(body).headers).to.deep.equal([{ name: 'X-Preview', value: NOT_SHOWN }]);
			// Loads, trials and orders go by the new name of their conditions.
			const hash = other.value(`SELECT hash ${ofTrial}`);
			expect(other.value('SELECT DISTINCT conditions_hash FROM load')).to.equal(hash);
			expect(other.value('SELECT DISTINCT hash FROM trial_conditions')).to.equal(hash);
			// What it would load now is another page than was asked for.
			other.db.prepare(`UPDATE trial SET status = 'stopped'`).run();
			expect(refusal(() => startTrial(other.db, other.value('SELECT id FROM trial')))).to.match(/^409 .*stayed with/);
		} finally {
			other.end();
		}
	});

	it('cannot change what conditions mean that are known by their hash', async () => {
		const { clientId } = furnish();
		const packed = await exportClient(q.now.db, clientId);
		const forged = changed(packed, ({ tables }) => {
			const [version] = tables.conditions_version!;
			version!.body = String(version!.body).replace('"capMs":45000', '"capMs":250000');
		});
		expect(await answer(packed)).to.equal('taken');
		expect(await answer(forged)).to.match(/conditions_version, row 1.*not those that their hash names/);
	});

	it('brings no work: jobs that wait, trials that run, caps of a day', async () => {
		const { clientId } = furnish();
		const packed = await exportClient(q.now.db, clientId);
		const rows: [string, (tables: Head['tables']) => void, RegExp][] = [
			['a queued job', ({ job }) => (job![0]!.status = 'queued'), /job, row 1: status: Only jobs that are over/],
			['a leased job', ({ job }) => (job![0]!.status = 'leased'), /Only jobs that are over/],
			['a job to print', ({ job }) => (job![0]!.kind = 'render'), /job, row 1: kind/],
			['a running trial', ({ trial }) => (trial![0]!.status = 'running'), /trial, row 1: status/],
			['a paused trial', ({ trial }) => (trial![0]!.status = 'paused'), /trial, row 1: status/],
			[
				'another client’s job',
				({ job }) => Object.assign(job![0]!, { subject_kind: 'client', subject_id: 99 }),
				/names client 99/
			]
		];
		for (const [name, change, why] of rows)
			expect(await answer(changed(packed, ({ tables }) => change(tables))), name).to.match(why);
	});

	it('is refused whole, with a list of what is wrong in it', async () => {
		const { clientId } = furnish();
		const packed = await exportClient(q.now.db, clientId);
		const rows: [string, (tables: Head['tables']) => void, RegExp][] = [
			['settings', ({ client }) => (client![0]!.settings = '{"targets":7}'), /client, row 1: .*targets/],
			['no JSON', ({ client }) => (client![0]!.settings = '{'), /client, row 1/],
			['a currency', ({ client }) => (client![0]!.currency = 'XYZ'), /client, row 1: .*currency/],
			['a metric', ({ trial }) => (trial![0]!.primary_metrics = '["speed"]'), /trial, row 1: primary_metrics/],
			['a metric of Object’s', ({ trial }) => (trial![0]!.primary_metrics = '["constructor"]'), /trial, row 1/],
			['an address', ({ arm }) => (arm![0]!.url = 'javascript:alert(1)'), /arm, row 1: url/],
			['a host', ({ site }) => (site![0]!.host = 'a b'), /site, row 1: .*host/],
			['a time', ({ load }) => (load![0]!.started_at = 'yesterday'), /load, row 1: started_at/],
			['a figure', ({ load }) => (load![0]!.lcp = 'fast'), /load, row 1: lcp/],
			['options', ({ trial }) => (trial![0]!.options = '{"looks":[{}]}'), /trial, row 1: options/],
			['a schedule', ({ watch }) => (watch![0]!.settings = '{"conditions":[]}'), /watch, row 1: settings/],
			['no baseline', ({ arm }) => arm!.forEach((row) => (row.is_baseline = 0)), /trial \d+: .*one baseline/],
			[
				'one arm',
				({ arm, trial_place, load }) => [arm, trial_place, load].forEach((list) => list!.splice(1)),
				/variants|names/
			],
			['an arm of nobody', ({ arm }) => (arm![0]!.trial_id = 77), /names trial 77/],
			['rows twice', ({ page }) => page!.push({ ...page![0]! }), /is there twice/],
			['two clients', ({ client }) => client!.push({ ...client![0]!, id: 2 }), /one client/],
			['a table', (tables) => (tables.sqlite_master = []), /sqlite_master: there is no such table/],
			['a use', ({ artifact_use }) => (artifact_use![0]!.role = '../x'), /artifact_use, row 1: role/],
			[
				'a picture as record',
				({ artifact_use }) => artifact_use!.forEach((row) => (row.role = 'record')),
				/of another kind/
			]
		];
		for (const [name, change, why] of rows)
			expect(await answer(changed(packed, ({ tables }) => change(tables))), name).to.match(why);
		const many = changed(packed, ({ tables }) => {
			tables.client![0]!.currency = 'XYZ';
			tables.site![0]!.host = '';
			tables.arm![1]!.url = 'ftp://a.test/';
		});
		expect(await answer(many)).to.match(/client, row 1.* · .*site, row 1.* · .*arm, row 2/);
	});
});
