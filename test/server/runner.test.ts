import { expect } from 'chai';
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import { failedLoad } from '$core/load/record/failedLoad';
import type { MeasuredLoad } from '$core/load/record/record';
import { failure } from '../../src/lab/failure';
import { changeMeter } from '../../src/lib/server/base/db/changes';
import { listLabs } from '../../src/lib/server/rooms/labs/queries/labs';
import { snapshot } from '../../src/lib/server/desk/labNow';
import { requestLoad } from '../../src/lib/server/rooms/loads/commands';
import { findRequest } from '../../src/lib/server/rooms/loads/requested';
import { createTrial, startTrial } from '../../src/lib/server/rooms/trials/commands';
import { leaseJob, renewLease } from '../../src/lib/server/base/queue/jobs';
import { takeLabLock } from '../../src/lib/server/runner/lock';
import { startRunner } from '../../src/lib/server/runner/loop';
import { fakeLab, silent } from '../support/lab';
import { measuredLoad, trialInput, useQueue } from '../support/queue';
import { until } from '../support/world';

const good = () => measuredLoad();
const bad = (code: 'browser-killed' | 'browser-blind' | 'refused'): MeasuredLoad => ({
	record: failedLoad({ url: 'http://a.test/', conditions: BUILT_IN_CONDITIONS[1]! }, new Date(), failure(code).reason),
	frames: [],
	picture: null,
	stepPicture: null
});

describe('runner', function () {
	this.timeout(30_000);
	const q = useQueue();
	let trial: number;
	beforeEach(() => {
		trial = createTrial(q.now.db, trialInput({ rounds: 1 }));
	});
	const job = () =>
		q.now.db.prepare('SELECT status, attempts, lab_id FROM job WHERE id = 1').get() as {
			status: string;
			attempts: number;
			lab_id: string | null;
		};
	const done = () => q.now.loads(trial).length;

	it('keeps a second lab out by a lock on a file, and lets it in once the first has gone', async () => {
		const first = takeLabLock(q.now.folder)!;
		expect(takeLabLock(q.now.folder)).to.equal(null);
		startTrial(q.now.db, trial);
		const { lab, calls } = fakeLab(async () => good());
		let looks = 0;
		const pause = () => new Promise((next) => setImmediate(next, looks++));
		const second = startRunner({ db: q.now.db, lab, log: silent, pause });
		await until(() => looks > 20, 5000, 'the second lab to look for the lock again and again');
		expect(calls.measured).to.equal(0);
		first.release();
		await until(() => done() === 2, 5000, 'the second lab to measure');
		second.stop();
		await second.finished;
		expect(listLabs(q.now.db)).to.deep.equal([]);
	});

	it('is kept out by the lock of another process, which the system takes back when that is killed', async () => {
		const code = `import('./src/lib/server/runner/lock.ts').then(({ takeLabLock }) => { console.log(takeLabLock(${JSON.stringify(q.now.folder)}) ? 'held' : 'no'); setInterval(() => 0, 1000); })`;
		const child = spawn(process.execPath, ['--import', 'tsx', '-e', code], { stdio: ['ignore', 'pipe', 'inherit'] });
		await new Promise<void>((held) => child.stdout.on('data', (words: Buffer) => words.includes('held') && held()));
		expect(takeLabLock(q.now.folder)).to.equal(null);
		child.kill('SIGSTOP');
		expect(takeLabLock(q.now.folder)).to.equal(null);
		child.kill('SIGKILL');
		let mine = takeLabLock(q.now.folder);
		await until(() => (mine ??= takeLabLock(q.now.folder)) !== null, 5000, 'the lock to be free');
		mine!.release();
	});

	it('gives a load under way back when it is stopped, and counts no try', async () => {
		startTrial(q.now.db, trial);
		let end: (load: MeasuredLoad) => void = () => undefined;
		const { lab } = fakeLab(() => new Promise((resolve) => (end = resolve)));
		const runner = startRunner({ db: q.now.db, lab, log: silent });
		await until(() => job().status === 'leased', 5000, 'the lease');
		runner.stop();
		end(bad('refused'));
		await runner.finished;
		expect(job()).to.include({ status: 'queued', attempts: 0, lab_id: null });
		expect(done()).to.equal(0);
	});

	it('loads again what somebody killed, at most twice more, and then says so', async () => {
		startTrial(q.now.db, trial);
		let calls = 0;
		const { lab } = fakeLab(async () =>
			++calls <= 2 ? bad(calls === 1 ? 'browser-killed' : 'browser-blind') : good()
		);
		const runner = startRunner({ db: q.now.db, lab, log: silent });
		await until(() => done() === 2, 10_000, 'both loads');
		expect(calls).to.equal(4);
		expect(q.now.loads(trial).map((summary) => summary.status)).to.deep.equal(['ok', 'ok']);
		runner.stop();
		await runner.finished;

		const again = startRunner({ db: q.now.db, lab: fakeLab(async () => bad('browser-killed')).lab, log: silent });
		const single = requestLoad(q.now.db, { url: 'http://a.test', conditions: 'desktop' });
		await until(() => findRequest(q.now.db, single)!.status === 'done', 10_000, 'the failed load');
		expect(q.now.value('SELECT attempts FROM job WHERE id = ?', single)).to.be.at.most(3);
		again.stop();
		await again.finished;
	});

	it('ends its load unstored when its lease is another’s', async () => {
		startTrial(q.now.db, trial);
		let end: (load: MeasuredLoad) => void = () => undefined;
		const { lab, calls } = fakeLab(() => new Promise((resolve) => (end = resolve)));
		const runner = startRunner({ db: q.now.db, lab, log: silent });
		await until(() => job().status === 'leased', 5000, 'the lease');
		q.now.db.prepare("UPDATE job SET lab_id = 'another' WHERE id = 1").run();
		await until(() => calls.abandoned > 0, 8000, 'the load to be given up');
		runner.stop();
		end(good());
		await runner.finished;
		expect(done()).to.equal(0);
		expect(job()).to.include({ status: 'leased', lab_id: 'another' });
	});

	it('goes on when the database was locked for a while: the measured load is stored, once', async () => {
		startTrial(q.now.db, trial);
		const locker = new Database(join(q.now.folder, 'zafra.db'));
		let locked = false;
		q.now.db.pragma('busy_timeout = 100');
		const { lab } = fakeLab(async () => {
			if (!locked) {
				locked = true;
				locker.exec('BEGIN EXCLUSIVE');
				setTimeout(() => locker.exec('COMMIT'), 3000);
			}
			return good();
		});
		const runner = startRunner({ db: q.now.db, lab, log: silent });
		await until(() => !locker.inTransaction && locked, 10_000, 'the lock to go');
		await until(() => done() === 2, 10_000, 'both loads');
		runner.stop();
		await runner.finished;
		locker.close();
	});

	it('renews a lease that is its own, and no other', () => {
		startTrial(q.now.db, trial);
		const leased = leaseJob(q.now.db, 'me', '2026-01-01T00:00:00.000Z')!;
		const until = () => q.now.db.prepare('SELECT lease_until FROM job WHERE id = ?').pluck().get(leased.id) as string;
		expect(until()).to.equal('2026-01-01T00:00:15.000Z');
		expect(renewLease(q.now.db, leased.id, 'another')).to.equal(false);
		expect(renewLease(q.now.db, leased.id, 'me')).to.equal(true);
		expect(until() > new Date().toISOString()).to.equal(true);
	});

	it('is followed by counters: what runs, what waits, and the last ten', () => {
		startTrial(q.now.db, trial);
		q.now.db.prepare('UPDATE job SET status = ? WHERE id = 1').run('done');
		expect(snapshot(q.now.db).trials).to.deep.include({
			id: trial,
			status: 'queued',
			done: 1,
			total: 2,
			timeLeftMs: 9000
		});
	});

	it('looks only when something has changed', () => {
		const other = new Database(join(q.now.folder, 'zafra.db'));
		const hasChanged = changeMeter(q.now.db, 60_000);
		expect([hasChanged(), hasChanged()]).to.deep.equal([true, false]);
		q.now.db.prepare("INSERT INTO fact (name, value) VALUES ('a', '1')").run();
		expect([hasChanged(), hasChanged()]).to.deep.equal([true, false]);
		other.prepare("INSERT INTO fact (name, value) VALUES ('b', '1')").run();
		expect([hasChanged(), hasChanged()]).to.deep.equal([true, false]);
		other.close();
	});
});
