import { expect } from 'chai';
import { NOBODY } from '../../src/lib/server/base/subject';
import { requestLoad } from '../../src/lib/server/rooms/loads/commands';
import { pauseTrial } from '../../src/lib/server/rooms/trials/commands';
import {
	deleteQueuedJob,
	findJob,
	finishJob,
	giveBack,
	insertJob,
	leaseJob,
	PRIORITY,
	renewLease,
	type Job
} from '../../src/lib/server/base/queue/jobs';
import { useQueue } from '../support/queue';

describe('the one queue', () => {
	const q = useQueue();
	const lease = (labId = 'me', now?: string) => leaseJob(q.now.db, labId, now);
	const named = (job: Job | null) => job && `${job.kind} ${job.subject.kind}:${job.subject.id}`;
	const state = (id: number) =>
		q.now.db.prepare('SELECT status, lab_id, attempts, not_before FROM job WHERE id = ?').get(id);

	it('gives what is awaited first, then what is derived, then trials, and at last what may wait', () => {
		const trial = q.now.make({ rounds: 1 });
		insertJob(q.now.db, {
			kind: 'derive',
			subject: { kind: 'trial', id: 900 },
			order: 'evidence',
			priority: PRIORITY.catchUp
		});
		insertJob(q.now.db, { kind: 'derive', subject: { kind: 'trial', id: 901 }, order: 'judgement', priority: 6 });
		requestLoad(q.now.db, { url: 'http://a.test', conditions: 'desktop' });
		const order = Array.from({ length: 6 }, () => {
			const job = lease();
			if (job) finishJob(q.now.db, job, 'me');
			return named(job);
		});
		expect(order).to.deep.equal([
			'load nobody:0',
			'derive trial:901',
			`load trial:${trial}`,
			`load trial:${trial}`,
			'derive trial:900',
			null
		]);
	});

	it('keeps a job back until its time', () => {
		insertJob(q.now.db, { kind: 'load', subject: NOBODY, order: {}, notBefore: '2026-11-25T10:00:00.000Z' });
		expect(lease('me', '2026-11-25T09:59:59.999Z')).to.equal(null);
		expect(named(lease('me', '2026-11-25T10:00:00.000Z'))).to.equal('load nobody:0');
	});

	it('leaves jobs of kinds that it does not know to newer labs', () => {
		const id = insertJob(q.now.db, { kind: 'render', subject: NOBODY, priority: 50 });
		// As a newer one would have written it.
		q.now.db.pragma('ignore_check_constraints = ON');
		q.now.db.prepare("UPDATE job SET kind = 'weigh' WHERE id = ?").run(id);
		expect(lease()).to.equal(null);
	});

	it('passes paused trials over, and takes no lease from another lab', () => {
		const trial = q.now.make({ rounds: 1 });
		const first = lease('one')!;
		expect(renewLease(q.now.db, first.id, 'two')).to.equal(false);
		expect(renewLease(q.now.db, first.id, 'one')).to.equal(true);
		pauseTrial(q.now.db, trial);
		// What changed is judged; no load of it is given out.
		finishJob(q.now.db, lease('two')!, 'two');
		expect(lease('two')).to.equal(null);
		expect(findJob(q.now.db, first.id)).to.deep.include({ status: 'leased', subject: { kind: 'trial', id: trial } });
	});

	it('counts a try, unless the lab is why it ended', () => {
		const id = insertJob(q.now.db, { kind: 'load', subject: NOBODY, order: {} });
		lease();
		giveBack(q.now.db, 'me');
		expect(state(id)).to.deep.include({ status: 'queued', lab_id: null, attempts: 1 });
		lease();
		giveBack(q.now.db, 'me', { countAttempt: false, notBefore: '2099-01-01T00:00:00.000Z' });
		expect(state(id)).to.deep.include({ attempts: 1, not_before: '2099-01-01T00:00:00.000Z' });
	});

	it('takes over a lease that has run out, and only then', () => {
		const id = insertJob(q.now.db, { kind: 'load', subject: NOBODY, order: {} });
		const at = (seconds: number) => new Date(Date.parse('2026-11-25T10:00:00.000Z') + seconds * 1000).toISOString();
		expect(lease('one', at(0))!.id).to.equal(id);
		expect(lease('two', at(14))).to.equal(null);
		expect(lease('two', at(16))).to.deep.include({ id, attempts: 2 });
		expect(finishJob(q.now.db, { id, kind: 'load' }, 'one')).to.equal(false);
	});

	it('holds one job for each thing that is to be derived, however often its inputs change', () => {
		const derive = () =>
			insertJob(q.now.db, { kind: 'derive', subject: { kind: 'trial', id: 5 }, order: 'judgement', priority: 6 });
		derive();
		expect(derive).to.throw(/UNIQUE/);
		const under = lease()!;
		// Asked for again while it is under way: done once more after it.
		derive();
		giveBack(q.now.db, 'me');
		expect(q.now.value("SELECT count(*) FROM job WHERE subject_kind = 'trial' AND subject_id = 5")).to.equal(1);
		expect(findJob(q.now.db, under.id)).to.equal(null);
		finishJob(q.now.db, lease()!, 'me');
		expect(q.now.value("SELECT count(*) FROM job WHERE subject_kind = 'trial' AND subject_id = 5")).to.equal(0);
	});

	it('lets go of what nobody wants any more, but not of a trial’s place', () => {
		const lone = requestLoad(q.now.db, { url: 'http://a.test', conditions: 'desktop' });
		q.now.make({ rounds: 1 });
		expect(deleteQueuedJob(q.now.db, lone)).to.equal(true);
		expect(deleteQueuedJob(q.now.db, lone)).to.equal(false);
		const place = q.now.value<number>('SELECT job_id FROM trial_place LIMIT 1');
		expect(deleteQueuedJob(q.now.db, place)).to.equal(false);
	});
});
