import { expect } from 'chai';
import { readdirSync } from 'node:fs';
import { openDatabase } from '../../src/lib/server/base/db/connection';
import { exportTrial, importDemo, importTrial } from '../../src/lib/server/demo/demo';
import { NotPossible } from '../../src/lib/server/base/refusal';
import { lateSeenOf } from '../../src/lib/server/rooms/trials/queries/lateView';
import { findRecord } from '../../src/lib/server/rooms/loads/loads';
import { messageOf } from '../../src/lib/server/rooms/trials/answer';
import { createTrial, deleteTrial, startTrial, stopTrial } from '../../src/lib/server/rooms/trials/commands';
import { judgementOf } from '../../src/lib/server/rooms/trials/judgement';
import { storeTrialLoad } from '../../src/lib/server/rooms/trials/progress';
import { fingerprintOfInputs } from '../../src/lib/server/rooms/trials/queries/trial';
import { finishJob, giveBack } from '../../src/lib/server/base/queue/jobs';
import { measuredLoad, trialInput, useQueue, type TrialExtra } from '../support/queue';

const TRIAL: TrialExtra = {
	arms: [
		{ name: 'A', url: 'http://a.test', baseline: false },
		{ name: 'B', url: 'http://b.test/x', baseline: true }
	],
	warmups: 1
};

describe('database and queue', () => {
	const q = useQueue();
	const run = () => q.now.runAll().length;

	it('migrates once, and refuses a database of a newer Zafra in words', () => {
		openDatabase(q.now.folder).close();
		q.now.db.pragma('user_version = 999');
		expect(() => openDatabase(q.now.folder)).to.throw(/newer Zafra/);
	});

	it('keeps a trial as it was asked for, with exactly one baseline', () => {
		const trial = q.now.trial(createTrial(q.now.db, trialInput(TRIAL)));
		expect(trial.design.arms.map((arm) => arm.baseline)).to.deep.equal([false, true]);
		expect(trial.design.arms[0]!.url).to.equal('http://a.test/');
		expect(trial.status).to.equal('draft');
		expect(() => createTrial(q.now.db, trialInput({ ...TRIAL, referenceUrl: 'http://r.test/' }))).to.throw(NotPossible);
	});

	it('starts once however often it is pressed, and every job is leased once', () => {
		const id = createTrial(q.now.db, trialInput(TRIAL));
		startTrial(q.now.db, id);
		startTrial(q.now.db, id);
		expect(q.now.trial(id).progress).to.deep.equal({ done: 0, total: 8 });
		expect(run()).to.equal(8);
		expect(q.now.trial(id).status).to.equal('done');
		expect(q.now.loads(id).filter((load) => load.warmup)).to.have.length(2);
		expect(() => startTrial(q.now.db, id)).to.throw(/done/);
	});

	it('does not count a load whose lease was lost, nor one job twice', () => {
		const id = createTrial(q.now.db, trialInput(TRIAL));
		startTrial(q.now.db, id);
		const slot = q.now.lease('dead')!;
		q.now.db.prepare("UPDATE job SET lease_until = '2026-01-01T00:00:00.000Z' WHERE id = ?").run(slot.id);
		const again = q.now.lease('me')!;
		expect(again).to.include({ id: slot.id, attempts: 2 });
		expect(finishJob(q.now.db, slot.job, 'dead')).to.equal(false);
		q.now.finish(again);
		expect(() => storeTrialLoad(q.now.db, again.job, again.job.slot!, measuredLoad())).to.throw(/UNIQUE/);
	});

	it('leaves the lease of another lab alone for as long as it is renewed', () => {
		startTrial(q.now.db, createTrial(q.now.db, trialInput(TRIAL)));
		const theirs = q.now.lease('another')!;
		expect(q.now.lease('me')!.id).not.to.equal(theirs.id);
		giveBack(q.now.db, 'me');
		expect(q.now.db.prepare('SELECT status, lab_id FROM job WHERE id = ?').get(theirs.id)).to.deep.equal({
			status: 'leased',
			lab_id: 'another'
		});
	});

	it('stops, keeps what was measured, and goes on where it stopped', () => {
		const id = createTrial(q.now.db, trialInput(TRIAL));
		startTrial(q.now.db, id);
		q.now.finish(q.now.lease()!);
		stopTrial(q.now.db, id);
		expect(q.now.lease()).to.equal(null);
		expect(q.now.trial(id).status).to.equal('stopped');
		startTrial(q.now.db, id);
		expect(run()).to.equal(7);
		expect(q.now.loads(id)).to.have.length(8);
	});

	it('waits between stages, in order, the reference page in each', () => {
		const id = createTrial(q.now.db, trialInput({ ...TRIAL, kind: 'before-after', referenceUrl: 'http://calm.test/' }));
		expect(() => startTrial(q.now.db, id, 1)).to.throw(/Stage 0 comes first/);
		startTrial(q.now.db, id, 0);
		expect(() => startTrial(q.now.db, id, 1)).to.throw(/still running/);
		expect(run()).to.equal(8);
		expect(q.now.trial(id)).to.include({ status: 'waiting' });
		expect(messageOf(q.now.db, q.now.trial(id))).to.match(/Make the change/);
		expect(() => startTrial(q.now.db, id, 0)).to.throw(/started before/);
		startTrial(q.now.db, id, 1);
		run();
		expect(q.now.trial(id).status).to.equal('done');
	});

	it('judges again only when a load came or was left out', () => {
		const id = createTrial(q.now.db, trialInput(TRIAL));
		startTrial(q.now.db, id);
		run();
		const trial = q.now.trial(id);
		const first = judgementOf(q.now.db, trial);
		expect(judgementOf(q.now.db, trial)).to.deep.equal(first);
		const before = fingerprintOfInputs(q.now.db, id);
		q.now.db.prepare("UPDATE load SET excluded = 'why' WHERE id = ?").run(q.now.loads(id)[3]!.id);
		expect(fingerprintOfInputs(q.now.db, id)).not.to.equal(before);
	});

	it('brings the shipped demonstration in once, and a trial survives export and import whole', function () {
		importDemo(q.now.db);
		importDemo(q.now.db);
		const shipped = readdirSync('demo/trials').length;
		expect(shipped).to.equal(8);
		const trial = q.now.trial(1);
		expect(trial).to.include({ status: 'done', clientName: 'Skerry Line' });
		const loads = q.now.loads(1);
		// Two variants on two devices, one warm-up and eight rounds.
		expect(loads.filter((load) => !load.disturbed)).to.have.length(2 * 2 * 9);
		expect(findRecord(q.now.db, loads[5]!.id)!.requests.length).to.be.above(4);
		const copy = importTrial(q.now.db, exportTrial(q.now.db, 1));
		const late = (id: number) =>
			lateSeenOf(q.now.db, id).map(({ condition, kind, facts }) => ({ condition, kind, facts }));
		expect(late(1)).to.have.length(8);
		expect(late(copy)).to.deep.equal(late(1));
		expect(judgementOf(q.now.db, q.now.trial(copy)).results.map((result) => result.shift)).to.deep.equal(
			judgementOf(q.now.db, trial).results.map((result) => result.shift)
		);
	});

	it('deletes a trial with all that hangs on it', () => {
		const id = createTrial(q.now.db, trialInput(TRIAL));
		startTrial(q.now.db, id);
		run();
		deleteTrial(q.now.db, id);
		for (const table of ['load', 'job', 'trial_place', 'arm', 'derived', 'artifact', 'artifact_use'])
			expect((q.now.db.prepare(`SELECT count(*) AS n FROM ${table}`).get() as { n: number }).n, table).to.equal(0);
	});
});
