import { expect } from 'chai';
import { hostname } from 'node:os';
import { beat, listLabs, saveLab } from '../../src/lib/server/rooms/labs/queries/labs';
import { forgetLabs, isAlive, isStuck } from '../../src/lib/server/rooms/labs/labs';
import { labNow } from '../../src/lib/server/desk/labNow';
import { requestLoad } from '../../src/lib/server/rooms/loads/commands';
import { findRequest } from '../../src/lib/server/rooms/loads/requested';
import { createTrial, startTrial } from '../../src/lib/server/rooms/trials/commands';
import { NOBODY } from '../../src/lib/server/base/subject';
import { finishJob, giveBack, insertJob, leaseJob, reclaimLeases } from '../../src/lib/server/base/queue/jobs';
import { startRunner } from '../../src/lib/server/runner/loop';
import { fakeLab, silent } from '../support/lab';
import { measuredLoad, trialInput, useQueue, type TestQueue } from '../support/queue';
import { until } from '../support/world';

const LAB = {
	id: 'me',
	pid: process.pid,
	state: 'busy' as const,
	jobId: null,
	browser: '/usr/bin/chromium',
	problem: null,
	loadUntil: null,
	sandboxed: false
};
const inMs = (ms: number) => new Date(Date.now() + ms).toISOString();

describe('labs', () => {
	const q = useQueue();

	it('say what they load: a round of a trial, the wait for a stable page, or a load outside trials', () => {
		const id = createTrial(q.now.db, trialInput({ question: 'Is B slower?', settleWithinS: 30, warmups: 1 }));
		startTrial(q.now.db, id);
		const doing = () => {
			const placed = q.now.lease()!;
			saveLab(q.now.db, { ...LAB, jobId: placed.id });
			const { state, trialId, question, doing: words } = labNow(q.now.db);
			if (placed.settle) q.now.settle(placed, { words: '' });
			else q.now.finish(placed);
			return [state, trialId, question, words?.replace(/^[AB]/, 'X')];
		};
		const told = Array.from({ length: 5 }, doing);
		expect(told[0]).to.deep.equal(['busy', id, 'Is B slower?', 'X, Desktop, waiting for the page to be stable']);
		expect(told[2]![3]).to.equal('X, Desktop, warm-up 1 of 1');
		expect(told[4]![3]).to.equal('X, Desktop, round 1 of 3');
		requestLoad(q.now.db, { url: 'http://a.test', conditions: 'phone' });
		saveLab(q.now.db, { ...LAB, jobId: leaseJob(q.now.db, 'me')!.id });
		expect(labNow(q.now.db)).to.include({ state: 'busy', trialId: null, doing: 'a load outside a trial' });
	});

	it('that have not finished a load in its time say so, as do unprotected ones', () => {
		saveLab(q.now.db, { ...LAB, loadUntil: inMs(5000) });
		expect(labNow(q.now.db)).to.include({ problem: null, unprotected: true });
		saveLab(q.now.db, { ...LAB, loadUntil: inMs(-60_000) });
		expect(isStuck(listLabs(q.now.db)[0]!)).to.equal(true);
		expect(labNow(q.now.db).problem).to.include('not finished a load within its time');
	});

	it('live by their heartbeat; on this machine their process must live too', () => {
		saveLab(q.now.db, LAB);
		const [lab] = listLabs(q.now.db);
		expect(isAlive(lab!)).to.equal(true);
		expect(isAlive({ ...lab!, beatAt: inMs(-20_000) })).to.equal(false);
		// No process has this number (it is beyond what Linux gives out).
		expect(isAlive({ ...lab!, pid: 2 ** 22 + 1 })).to.equal(false);
		expect(isAlive({ ...lab!, pid: 2 ** 22 + 1, host: 'another-machine' })).to.equal(true);
		q.now.db.prepare("UPDATE lab SET beat_at = '2026-01-01T00:00:00.000Z'").run();
		beat(q.now.db, 'me');
		expect(isAlive(listLabs(q.now.db)[0]!)).to.equal(true);
	});

	it('of other machines keep their rows and leases when a new one begins here', () => {
		saveLab(q.now.db, { ...LAB, id: 'gone' });
		saveLab(q.now.db, { ...LAB, id: 'elsewhere' });
		q.now.db.prepare("UPDATE lab SET host = 'another-machine' WHERE id = 'elsewhere'").run();
		expect(forgetLabs(q.now.db, 'new')).to.deep.equal(['gone']);
		expect(listLabs(q.now.db).map((lab) => [lab.id, lab.host])).to.deep.equal([['elsewhere', 'another-machine']]);
		expect(hostname()).not.to.equal('another-machine');
	});

	it('two at once with leases that run out lose, double and overlap nothing', () => {
		const id = createTrial(q.now.db, trialInput({ rounds: 40 }));
		startTrial(q.now.db, id);
		// Of 119 leases every third runs out: 39, and the other 80 are stored.
		expect(workWithLosses(q.now, id)).to.deep.equal({ stored: 80, refused: 39, held: true });
		expect(q.now.trial(id)).to.deep.include({ status: 'done', progress: { done: 80, total: 80 } });
		expect(q.now.value('SELECT count(DISTINCT job_id) FROM load')).to.equal(80);
	});
});

/** Two labs in turn; every third lease runs out before its load ends and goes to the other lab. */
function workWithLosses(queue: TestQueue, id: number) {
	const { db } = queue;
	let [stored, refused, held] = [0, 0, true];
	for (let step = 1; queue.trial(id).status !== 'done'; step++) {
		const [mine, other] = step % 2 ? ['one', 'two'] : ['two', 'one'];
		const placed = queue.lease(mine);
		if (!placed) break;
		// Nobody else gets a job that is leased.
		const beside = queue.lease(other);
		if (beside) held &&= beside.id !== placed.id;
		giveBack(db, other!, { countAttempt: false });
		if (step % 3 === 0) {
			db.prepare("UPDATE job SET lease_until = '2026-01-01T00:00:00.000Z' WHERE id = ?").run(placed.id);
			reclaimLeases(db, new Date().toISOString());
		}
		if (!finishJob(db, placed.job, mine!)) {
			refused++;
			continue;
		}
		stored++;
		db.prepare("UPDATE job SET status = 'leased', lab_id = 'me' WHERE id = ?").run(placed.id);
		queue.finish(placed);
	}
	return { stored, refused, held };
}

describe('a lab that meets trouble', function () {
	this.timeout(30_000);
	const q = useQueue();

	/** Nothing that gzip could make small. */
	const noise = Buffer.from(Array.from({ length: 400_000 }, (_, i) => (i * 2_654_435_761) >>> 13));
	const fill = () => q.now.db.pragma(`max_page_count = ${q.now.db.pragma('page_count', { simple: true }) as number}`);
	const empty = () => q.now.db.pragma('max_page_count = 1000000');
	const run = (measure = async () => measuredLoad({}, noise)) =>
		startRunner({ db: q.now.db, lab: fakeLab(measure).lab, log: silent, fullDiskPauseMs: 300 });
	const problem = () => listLabs(q.now.db)[0]?.problem ?? null;

	it('goes on after a full disk: a load outside a trial is loaded again when there is room', async () => {
		const id = requestLoad(q.now.db, { url: 'http://a.test', conditions: 'desktop' });
		fill();
		const runner = run();
		await until(() => problem() !== null, 8000, 'the full disk to be told');
		expect(findRequest(q.now.db, id)).to.deep.include({ loadId: null });
		empty();
		await until(() => findRequest(q.now.db, id)!.status === 'done', 8000, 'the load');
		expect(q.now.value('SELECT attempts FROM job WHERE id = ?', id)).to.equal(1);
		await until(() => problem() === null, 8000, 'the trouble to be over');
		runner.stop();
		await runner.finished;
	});

	it('stops a trial whose load finds no room, and goes on with other work', async () => {
		const id = createTrial(q.now.db, trialInput({ rounds: 1 }));
		startTrial(q.now.db, id);
		fill();
		const runner = run();
		await until(() => q.now.trial(id).status === 'stopped', 8000, 'the trial to stop');
		expect(q.now.trial(id).reason).to.equal('disk-full');
		empty();
		const other = requestLoad(q.now.db, { url: 'http://a.test', conditions: 'desktop' });
		await until(() => findRequest(q.now.db, other)!.status === 'done', 8000, 'the other load');
		startTrial(q.now.db, id);
		await until(() => q.now.trial(id).status === 'done', 8000, 'the trial');
		expect(q.now.loads(id)).to.have.length(2);
		runner.stop();
		await runner.finished;
	});

	it('gives a load up that took it down five times, and says so', async () => {
		const id = requestLoad(q.now.db, { url: 'http://a.test', conditions: 'desktop' });
		q.now.db.prepare('UPDATE job SET attempts = 5 WHERE id = ?').run(id);
		const runner = run();
		await until(() => findRequest(q.now.db, id)!.status === 'done', 8000, 'the failed load');
		const { loadId } = findRequest(q.now.db, id)!;
		expect(q.now.value('SELECT reason_code FROM load WHERE id = ?', loadId)).to.equal('internal');
		runner.stop();
		await runner.finished;
	});

	it('passes over what it cannot derive and what it does not know', async () => {
		const id = q.now.make({ rounds: 1 });
		q.now.runAll();
		q.now.db.prepare("UPDATE artifact SET bytes = x'00' WHERE media = 'application/gzip'").run();
		insertJob(q.now.db, { kind: 'derive', subject: { kind: 'trial', id }, order: 'evidence', priority: 20 });
		insertJob(q.now.db, { kind: 'gather', subject: NOBODY, priority: 20 });
		const other = requestLoad(q.now.db, { url: 'http://a.test', conditions: 'desktop' });
		const runner = run(async () => measuredLoad());
		await until(() => findRequest(q.now.db, other)!.status === 'done', 8000, 'the load behind them');
		const waiting = q.now.db.prepare("SELECT kind FROM job WHERE status IN ('queued', 'leased')").pluck().all();
		expect(waiting).to.deep.equal(['gather']);
		runner.stop();
		await runner.finished;
	});
});
