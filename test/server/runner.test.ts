import { expect } from 'chai';
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import * as v from 'valibot';
import { BUILT_IN_CONDITIONS, type Conditions } from '$core/load/conditions';
import type { MeasuredLoad } from '$core/load/record';
import { NewTrialInput } from '$core/trial/input';
import { failedRecord } from '../../src/lab/assemble';
import { failure } from '../../src/lab/failure';
import type { Lab } from '../../src/lab/lab';
import { changeMeter } from '../../src/lib/server/db/changes';
import { openDatabase, type Db } from '../../src/lib/server/db/connection';
import { leaseJob, renewJob } from '../../src/lib/server/work/jobs';
import { isStuck, readLabState, writeLabState } from '../../src/lib/server/labs/labs';
import { loadsOfTrial } from '../../src/lib/server/loads/loads';
import { findSingle } from '../../src/lib/server/loads/requested';
import { createTrial, startTrial } from '../../src/lib/server/trials/commands';
import { askForLoad } from '../../src/lib/server/loads/commands';
import { takeLabLock } from '../../src/lib/server/work/lock';
import { startRunner } from '../../src/lib/server/work/loop';
import { labNow, snapshot } from '../../src/lib/server/labs/view';
import { recordOf } from '../support/records';
import { until } from '../support/world';

const silent = { info: () => undefined, warn: () => undefined, error: () => undefined };

/** A lab without a browser: each load is what the test says. */
function fakeLab(measure: (url: string, conditions: Conditions) => Promise<MeasuredLoad>) {
	const calls = { abandoned: 0, closed: 0, measured: 0 };
	const lab = {
		measure: (url: string, conditions: Conditions) => (calls.measured++, measure(url, conditions)),
		abandon: async () => void calls.abandoned++,
		close: async () => void calls.closed++,
		sandboxed: true
	};
	return { lab: lab as unknown as Lab, calls };
}
const good = (): MeasuredLoad => ({ record: recordOf(), frames: [], picture: null });
const bad = (code: 'browser-killed' | 'refused'): MeasuredLoad => ({
	record: failedRecord('http://a.test/', BUILT_IN_CONDITIONS[1]!, new Date(), failure(code).reason),
	frames: [],
	picture: null
});

describe('runner', function () {
	this.timeout(30_000);
	let folder: string;
	let db: Db;
	let trial: number;
	beforeEach(() => {
		folder = mkdtempSync(join(tmpdir(), 'zafra-runner-'));
		db = openDatabase(folder);
		const arms = [
			{ name: 'A', url: 'http://a.test' },
			{ name: 'B', url: 'http://b.test' }
		];
		trial = createTrial(
			db,
			v.parse(NewTrialInput, {
				question: 'Is it?',
				kind: 'side-by-side',
				arms,
				conditions: ['desktop'],
				rounds: 1,
				warmups: 0
			})
		);
	});
	afterEach(() => {
		db.close();
		rmSync(folder, { recursive: true });
	});
	const job = () =>
		db.prepare('SELECT status, attempts, lease_owner FROM job WHERE id = 1').get() as {
			status: string;
			attempts: number;
			lease_owner: string | null;
		};
	const done = () => loadsOfTrial(db, trial).length;

	it('keeps a second lab out by a lock on a file, and lets it in once the first has gone', async () => {
		const first = takeLabLock(folder)!;
		expect(takeLabLock(folder)).to.equal(null);
		startTrial(db, trial);
		const { lab, calls } = fakeLab(async () => good());
		const second = startRunner({ db, lab, log: silent });
		await new Promise((next) => setTimeout(next, 800));
		expect(calls.measured).to.equal(0);
		first.release();
		await until(() => done() === 2, 5000, 'the second lab to measure');
		second.stop();
		await second.finished;
		expect(readLabState(db)).to.equal(null);
	});

	it('is kept out by the lock of another process, which the system takes back when that is killed', async () => {
		const code = `import('./src/lib/server/work/lock.ts').then(({ takeLabLock }) => { console.log(takeLabLock(${JSON.stringify(folder)}) ? 'held' : 'no'); setInterval(() => 0, 1000); })`;
		const child = spawn(process.execPath, ['--import', 'tsx', '-e', code], { stdio: ['ignore', 'pipe', 'inherit'] });
		await new Promise<void>((held) => child.stdout.on('data', (words: Buffer) => words.includes('held') && held()));
		expect(takeLabLock(folder)).to.equal(null);
		child.kill('SIGSTOP');
		expect(takeLabLock(folder)).to.equal(null);
		child.kill('SIGKILL');
		let mine = takeLabLock(folder);
		await until(() => (mine ??= takeLabLock(folder)) !== null, 5000, 'the lock to be free');
		mine!.release();
	});

	it('gives a load under way back when it is stopped, and counts no try', async () => {
		startTrial(db, trial);
		let end: (load: MeasuredLoad) => void = () => undefined;
		const { lab } = fakeLab(() => new Promise((resolve) => (end = resolve)));
		const runner = startRunner({ db, lab, log: silent });
		await until(() => job().status === 'leased', 5000, 'the lease');
		runner.stop();
		end(bad('refused'));
		await runner.finished;
		expect(job()).to.include({ status: 'queued', attempts: 0, lease_owner: null });
		expect(done()).to.equal(0);
	});

	it('loads again what somebody killed, at most twice more, and then says so', async () => {
		startTrial(db, trial);
		let calls = 0;
		const { lab } = fakeLab(async () => (++calls <= 2 ? bad('browser-killed') : good()));
		const runner = startRunner({ db, lab, log: silent });
		await until(() => done() === 2, 10_000, 'both loads');
		expect(calls).to.equal(4);
		expect(loadsOfTrial(db, trial).map((one) => one.status)).to.deep.equal(['ok', 'ok']);
		runner.stop();
		await runner.finished;

		const again = startRunner({ db, lab: fakeLab(async () => bad('browser-killed')).lab, log: silent });
		const single = askForLoad(db, { url: 'http://a.test', conditions: 'desktop' });
		await until(() => findSingle(db, single)!.status === 'done', 10_000, 'the failed load');
		expect(findSingle(db, single)!.attempts).to.be.at.most(3);
		again.stop();
		await again.finished;
	});

	it('ends its load unstored when its lease is another’s', async () => {
		startTrial(db, trial);
		let end: (load: MeasuredLoad) => void = () => undefined;
		const { lab, calls } = fakeLab(() => new Promise((resolve) => (end = resolve)));
		const runner = startRunner({ db, lab, log: silent });
		await until(() => job().status === 'leased', 5000, 'the lease');
		db.prepare("UPDATE job SET lease_owner = 'another' WHERE id = 1").run();
		await until(() => calls.abandoned > 0, 8000, 'the load to be given up');
		runner.stop();
		end(good());
		await runner.finished;
		expect(done()).to.equal(0);
		expect(job()).to.include({ status: 'leased', lease_owner: 'another' });
	});

	it('goes on when the database was locked for a while: the measured load is stored, once', async () => {
		startTrial(db, trial);
		const locker = new Database(join(folder, 'zafra.db'));
		let locked = false;
		db.pragma('busy_timeout = 100');
		const { lab } = fakeLab(async () => {
			if (!locked) {
				locked = true;
				locker.exec('BEGIN EXCLUSIVE');
				setTimeout(() => locker.exec('COMMIT'), 3000);
			}
			return good();
		});
		const runner = startRunner({ db, lab, log: silent });
		await until(() => !locker.inTransaction && locked, 10_000, 'the lock to go');
		await until(() => done() === 2, 10_000, 'both loads');
		runner.stop();
		await runner.finished;
		locker.close();
	});

	it('tells of a lab that has not finished a load in its time, and of a load outside a trial', () => {
		const state = {
			owner: 'me',
			pid: process.pid,
			state: 'busy' as const,
			jobId: null,
			browser: '/usr/bin/chromium',
			problem: null,
			sandboxed: false
		};
		writeLabState(db, { ...state, loadUntil: new Date(Date.now() + 5000).toISOString() });
		expect(labNow(db)).to.include({ state: 'busy', doing: 'a load outside a trial', problem: null, unprotected: true });
		writeLabState(db, { ...state, loadUntil: new Date(Date.now() - 60_000).toISOString() });
		expect(isStuck(readLabState(db)!)).to.equal(true);
		expect(labNow(db).problem).to.include('not finished a load within its time');
	});

	it('renews a lease that is its own, and no other', () => {
		startTrial(db, trial);
		const leased = leaseJob(db, 'me', '2026-01-01T00:00:00.000Z')!;
		const until = () => db.prepare('SELECT lease_until FROM job WHERE id = ?').pluck().get(leased.id) as string;
		expect(until()).to.equal('2026-01-01T00:00:15.000Z');
		expect(renewJob(db, leased.id, 'another')).to.equal(false);
		expect(renewJob(db, leased.id, 'me')).to.equal(true);
		expect(until() > new Date().toISOString()).to.equal(true);
	});

	it('is followed by counters: what runs, what waits, and the last ten', () => {
		startTrial(db, trial);
		db.prepare('UPDATE job SET status = ? WHERE id = 1').run('done');
		expect(snapshot(db).trials).to.deep.include({ id: trial, status: 'queued', done: 1, total: 2, timeLeftMs: 9000 });
	});

	it('looks only when something has changed', () => {
		const other = new Database(join(folder, 'zafra.db'));
		const hasChanged = changeMeter(db, 60_000);
		expect([hasChanged(), hasChanged()]).to.deep.equal([true, false]);
		db.prepare("INSERT INTO fact (name, value) VALUES ('a', '1')").run();
		expect([hasChanged(), hasChanged()]).to.deep.equal([true, false]);
		other.prepare("INSERT INTO fact (name, value) VALUES ('b', '1')").run();
		expect([hasChanged(), hasChanged()]).to.deep.equal([true, false]);
		other.close();
	});
});
