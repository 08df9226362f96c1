import { expect } from 'chai';
import {
	addRounds,
	noteChange,
	pauseTrial,
	resumeTrial,
	startTrial,
	stopTrial
} from '../../src/lib/server/rooms/trials/commands';
import { markersOf, settlingsOf } from '../../src/lib/server/rooms/trials/queries/notes';
import { countOpenSlots } from '../../src/lib/server/rooms/trials/queries/slots';
import { refusal, useQueue } from '../support/queue';

describe('trials in the queue', () => {
	const q = useQueue();

	it('wait while paused, go on, and stop; nothing measured is lost', () => {
		const id = q.now.make();
		q.now.finish(q.now.lease()!);
		pauseTrial(q.now.db, id);
		expect(q.now.trial(id)).to.include({ status: 'paused' });
		expect(q.now.lease()).to.equal(null);
		resumeTrial(q.now.db, id);
		expect(refusal(() => resumeTrial(q.now.db, id))).to.match(/^409 .*not paused/);
		expect(q.now.runAll()).to.have.length(5);
		expect(q.now.trial(id)).to.include({ status: 'done' });
		expect(q.now.loads(id)).to.have.length(6);
		expect(refusal(() => pauseTrial(q.now.db, id))).to.match(/^409 .*not running/);
	});

	it('a load that ends while its trial is paused is kept, and the pause holds', () => {
		const id = q.now.make({ rounds: 1 });
		const job = q.now.lease()!;
		pauseTrial(q.now.db, id);
		q.now.finish(job);
		expect(q.now.trial(id)).to.include({ status: 'paused' });
		stopTrial(q.now.db, id);
		expect(q.now.trial(id)).to.include({ status: 'stopped', reason: 'analyst' });
		startTrial(q.now.db, id);
		expect(q.now.runAll()).to.have.length(1);
	});

	it('take turns, a round each, and a round is not torn apart', () => {
		const [first, second] = [q.now.make({ rounds: 2 }), q.now.make({ rounds: 2 })];
		const order = q.now.runAll().map((job) => `${job.trialId}.${job.round}`);
		expect(order).to.deep.equal([
			`${first}.1`,
			`${first}.1`,
			`${second}.1`,
			`${second}.1`,
			`${first}.2`,
			`${first}.2`,
			`${second}.2`,
			`${second}.2`
		]);
	});

	it('keep their turns when the clock goes back', () => {
		const [first, second] = [q.now.make({ rounds: 1 }), q.now.make({ rounds: 1 })];
		q.now.finish(q.now.lease()!);
		q.now.finish(q.now.lease()!);
		q.now.db.prepare("UPDATE trial SET leased_at = '2099-01-01T00:00:00.000Z' WHERE id = ?").run(first);
		q.now.db
			.prepare("UPDATE job SET leased_at = '2099-01-01T00:00:00.000Z' WHERE subject_kind = 'trial' AND subject_id = ?")
			.run(first);
		expect(q.now.runAll().map((job) => job.trialId)).to.deep.equal([second, second]);
		expect(q.now.trial(first).status).to.equal('done');
		expect(q.now.trial(second).status).to.equal('done');
	});

	it('wait for their time, and spread over it', () => {
		const later = q.now.make({ notBefore: new Date(Date.now() + 3_600_000).toISOString() });
		expect(q.now.lease()).to.equal(null);
		const spread = q.now.make({ spreadMinutes: 60, rounds: 3 });
		expect(q.now.runAll()).to.have.length(2);
		expect(countOpenSlots(q.now.db, spread)).to.equal(4);
		expect(countOpenSlots(q.now.db, later)).to.equal(6);
		const times = q.now.db
			.prepare("SELECT DISTINCT not_before FROM job WHERE subject_kind = 'trial' AND subject_id = ? ORDER BY 1")
			.pluck()
			.all(spread) as string[];
		expect((Date.parse(times[1]!) - Date.parse(times[0]!)) / 60_000).to.be.closeTo(20, 0.01);
	});

	it('in stages remember what was changed, with its settings file, and start each stage once', () => {
		const id = q.now.make({
			kind: 'before-after',
			arms: [
				{ name: 'Before', url: 'http://a.test' },
				{ name: 'After', url: 'http://a.test' }
			],
			rounds: 2
		});
		q.now.runAll();
		expect(q.now.trial(id).status).to.equal('waiting');
		noteChange(q.now.db, id, { words: 'Larder on', fileName: 'larder.json', file: '{"on":true}' });
		startTrial(q.now.db, id, 1);
		startTrial(q.now.db, id, 1);
		expect(countOpenSlots(q.now.db, id)).to.equal(2);
		expect(refusal(() => startTrial(q.now.db, id, 0))).to.match(/^409/);
		q.now.runAll();
		expect(q.now.trial(id).status).to.equal('done');
		expect(markersOf(q.now.db, id)[0]).to.include({
			stage: 1,
			words: 'Larder on',
			fileName: 'larder.json',
			file: '{"on":true}'
		});
		expect(refusal(() => addRounds(q.now.db, id, 2))).to.match(/^409 .*in the past/);
	});

	it('wait for stable pages first, once for each arm and device, and keep what was seen', () => {
		const id = q.now.make({ settleWithinS: 30, conditions: ['phone', 'desktop'] });
		const jobs = Array.from({ length: 4 }, () => q.now.lease()!);
		expect(jobs.every((job) => job.settle)).to.equal(true);
		expect(new Set(jobs.map((job) => `${job.armId}${job.conditionId}`)).size).to.equal(4);
		for (const job of jobs) {
			q.now.settle(job, { stable: true, words: 'Stable' });
		}
		expect(settlingsOf<{ words: string }>(q.now.db, id).map((settling) => settling.result.words)).to.deep.equal(
			Array(4).fill('Stable')
		);
		expect(q.now.lease()!.settle).to.equal(false);
	});
});
