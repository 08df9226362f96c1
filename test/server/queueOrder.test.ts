import { expect } from 'chai';
import { putFirst, startTrial, stopTrial } from '../../src/lib/server/rooms/trials/commands';
import { canBeFirst, timeLeftMs } from '../../src/lib/server/rooms/trials/timeLeft';
import { loadsAhead } from '../../src/lib/server/rooms/trials/queries/timeLeft';
import { findTrial } from '../../src/lib/server/rooms/trials/trial';
import { finishJob, insertJob, leaseJob } from '../../src/lib/server/base/queue/jobs';
import { refusal, useQueue } from '../support/queue';

describe('what comes before a trial', () => {
	const q = useQueue();
	const trial = (id: number) => findTrial(q.now.db, id)!;
	const ahead = (id: number) => {
		const { done, total } = trial(id).progress;
		return loadsAhead(q.now.db, id, total - done);
	};
	const served = (n: number) =>
		Array.from({ length: n }, () => {
			const job = leaseJob(q.now.db, 'me')!;
			finishJob(q.now.db, job, 'me');
			return job.slot?.trialId ?? null;
		});

	it('is part of the time that it needs still: others take turns with it', () => {
		const { db } = q.now;
		const make = (extra: { rounds: number }) => q.now.make(extra);
		const [small, large] = [make({ rounds: 2 }), make({ rounds: 10 })];
		// Two arms: 4 loads and 20. Of the large one 4 come before the small one has ended; of the small one all.
		expect([ahead(small), ahead(large)]).to.deep.equal([4, 4]);
		expect(timeLeftMs(db, trial(small))).to.equal((4 + 4) * 9000);
		expect(timeLeftMs(db, trial(large))).to.equal((20 + 4) * 9000);
		insertJob(db, { kind: 'load', subject: { kind: 'reading', id: 1 }, order: {} });
		insertJob(db, {
			kind: 'load',
			subject: { kind: 'reading', id: 1 },
			order: {},
			notBefore: '2999-01-01T00:00:00.000Z'
		});
		expect(ahead(small)).to.equal(5);
		expect(served(4)).to.have.length(4);
	});

	it('gives way when it is put first, from the next round on', () => {
		const { db } = q.now;
		const make = (extra: { rounds: number }) => q.now.make(extra);
		const [early, late] = [make({ rounds: 4 }), make({ rounds: 2 })];
		expect(served(1)).to.deep.equal([early]);
		putFirst(db, late);
		expect(canBeFirst(db, trial(late))).to.equal(false);
		expect([ahead(late), ahead(early)]).to.deep.equal([0, 4]);
		// The round under way belongs together.
		expect(served(7)).to.deep.equal([early, late, late, late, late, early, early]);
	});

	it('stays as it was for a trial that does not run, and for one that was stopped and goes on', () => {
		const { db } = q.now;
		const make = (extra: { rounds: number }) => q.now.make(extra);
		const [a, b] = [make({ rounds: 3 }), make({ rounds: 3 })];
		putFirst(db, b);
		stopTrial(db, b);
		expect(refusal(() => putFirst(db, b))).to.equal('409 This trial is not running.');
		startTrial(db, b);
		// What it is judged by comes before all loads.
		expect(served(3).filter((id) => id !== null)[0]).to.equal(a);
		expect(canBeFirst(db, trial(b))).to.equal(true);
	});
});
