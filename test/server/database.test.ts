import { expect } from 'chai';
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions';
import { failedRecord } from '../../src/lab/assemble';
import { failure } from '../../src/lab/failure';
import { openDatabase, type Db } from '../../src/lib/server/db/connection';
import { finishJob, leaseJob, releaseLeases } from '../../src/lib/server/work/jobs';
import { findRecord, insertLoad, loadsOfTrial, stampOfLoads } from '../../src/lib/server/loads/loads';
import { deleteTrial, findTrial } from '../../src/lib/server/trials/queries';
import { exportTrial, importDemo, importTrial } from '../../src/lib/server/demo/demo';
import { judgementOf } from '../../src/lib/server/trials/judgement';
import { createTrial, settleTrial, startTrial, stopTrial } from '../../src/lib/server/trials/commands';
import { NotPossible } from '../../src/lib/server/http/refusal';
import * as v from 'valibot';
import { NewTrialInput } from '$core/trial/input';

const input = (extra: Partial<v.InferInput<typeof NewTrialInput>> = {}): NewTrialInput =>
	v.parse(NewTrialInput, {
		question: 'Is it?',
		kind: 'side-by-side',
		arms: [
			{ name: 'A', url: 'http://a.test', baseline: false },
			{ name: 'B', url: 'http://b.test/x', baseline: true }
		],
		conditions: ['desktop'],
		rounds: 3,
		warmups: 1,
		seed: 5,
		clientId: null,
		...extra
	});

describe('database and queue', () => {
	let folder: string;
	let db: Db;
	beforeEach(() => {
		folder = mkdtempSync(join(tmpdir(), 'zafra-db-'));
		db = openDatabase(folder);
	});
	afterEach(() => {
		db.close();
		rmSync(folder, { recursive: true });
	});

	const measured = () => ({
		record: failedRecord('http://a.test/', BUILT_IN_CONDITIONS[1]!, new Date(), failure('crash').reason),
		frames: [],
		picture: null
	});

	/** Do what the runner does, without a browser. */
	function runAll(id: number): number {
		let count = 0;
		for (let job = leaseJob(db, 'me'); job; job = leaseJob(db, 'me')) {
			expect(finishJob(db, job.id, 'me')).to.equal(true);
			insertLoad(db, { ...job, jobId: job.id }, measured());
			settleTrial(db, id);
			count++;
		}
		return count;
	}

	it('migrates once, and refuses a database of a newer Zafra in words', () => {
		openDatabase(folder).close();
		db.pragma('user_version = 999');
		expect(() => openDatabase(folder)).to.throw(/newer Zafra/);
	});

	it('keeps a trial as it was asked for, with exactly one baseline', () => {
		const trial = findTrial(db, createTrial(db, input()))!;
		expect(trial.design.arms.map((arm) => arm.baseline)).to.deep.equal([false, true]);
		expect(trial.design.arms[0]!.url).to.equal('http://a.test/');
		expect(trial.status).to.equal('draft');
		expect(() => createTrial(db, input({ referenceUrl: 'http://r.test/' }))).to.throw(NotPossible);
	});

	it('starts once however often it is pressed, and every job is leased once', () => {
		const id = createTrial(db, input());
		startTrial(db, id);
		startTrial(db, id);
		expect(findTrial(db, id)!.progress).to.deep.equal({ done: 0, total: 8 });
		expect(runAll(id)).to.equal(8);
		expect(findTrial(db, id)!.status).to.equal('done');
		expect(loadsOfTrial(db, id).filter((load) => load.warmup)).to.have.length(2);
		expect(() => startTrial(db, id)).to.throw(/done/);
	});

	it('does not count a load whose lease was lost, nor one job twice', () => {
		const id = createTrial(db, input());
		startTrial(db, id);
		const job = leaseJob(db, 'dead')!;
		expect(releaseLeases(db, 'me')).to.equal(1);
		expect(finishJob(db, job.id, 'dead')).to.equal(false);
		const again = leaseJob(db, 'me')!;
		expect(again).to.include({ id: job.id, attempts: 2 });
		insertLoad(db, { ...again, jobId: again.id }, measured());
		expect(() => insertLoad(db, { ...again, jobId: again.id }, measured())).to.throw(/UNIQUE/);
	});

	it('stops, keeps what was measured, and goes on where it stopped', () => {
		const id = createTrial(db, input());
		startTrial(db, id);
		const job = leaseJob(db, 'me')!;
		finishJob(db, job.id, 'me');
		insertLoad(db, { ...job, jobId: job.id }, measured());
		stopTrial(db, id);
		expect(leaseJob(db, 'me')).to.equal(null);
		expect(findTrial(db, id)!.status).to.equal('stopped');
		startTrial(db, id);
		expect(runAll(id)).to.equal(7);
		expect(loadsOfTrial(db, id)).to.have.length(8);
	});

	it('waits between stages, in order, the reference page in each', () => {
		const id = createTrial(db, input({ kind: 'before-after', referenceUrl: 'http://calm.test/' }));
		expect(() => startTrial(db, id, 1)).to.throw(/Stage 0 comes first/);
		startTrial(db, id, 0);
		expect(() => startTrial(db, id, 1)).to.throw(/still running/);
		expect(runAll(id)).to.equal(8);
		expect(findTrial(db, id)).to.include({ status: 'waiting' });
		expect(findTrial(db, id)!.message).to.match(/Make the change/);
		expect(() => startTrial(db, id, 0)).to.throw(/started before/);
		startTrial(db, id, 1);
		runAll(id);
		expect(findTrial(db, id)!.status).to.equal('done');
	});

	it('judges again only when a load came or was left out', () => {
		const id = createTrial(db, input());
		startTrial(db, id);
		runAll(id);
		const trial = findTrial(db, id)!;
		const first = judgementOf(db, trial);
		expect(judgementOf(db, trial)).to.deep.equal(first);
		const before = stampOfLoads(db, id);
		db.prepare("UPDATE load SET excluded = 'why' WHERE id = ?").run(loadsOfTrial(db, id)[3]!.id);
		expect(stampOfLoads(db, id)).not.to.equal(before);
	});

	it('brings the shipped demonstration in once, and a trial survives export and import whole', function () {
		importDemo(db);
		importDemo(db);
		const shipped = readdirSync('demo/trials').length;
		expect(shipped).to.equal(3);
		const trial = findTrial(db, 1)!;
		expect(trial).to.include({ status: 'done', clientName: 'Skerry Line' });
		const loads = loadsOfTrial(db, 1);
		expect(loads).to.have.length(44);
		expect(findRecord(db, loads[5]!.id)!.requests.length).to.be.above(4);
		const copy = importTrial(db, exportTrial(db, 1));
		expect(judgementOf(db, findTrial(db, copy)!).results.map((result) => result.shift)).to.deep.equal(
			judgementOf(db, trial).results.map((result) => result.shift)
		);
	});

	it('deletes a trial with all that hangs on it', () => {
		const id = createTrial(db, input());
		startTrial(db, id);
		runAll(id);
		deleteTrial(db, id);
		for (const table of ['load', 'job', 'arm', 'frame'])
			expect((db.prepare(`SELECT count(*) AS n FROM ${table}`).get() as { n: number }).n, table).to.equal(0);
	});
});
