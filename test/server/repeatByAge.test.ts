import { expect } from 'chai';
import { repeatByAge } from '../../src/lib/server/trials/repeat';
import { createTrial } from '../../src/lib/server/trials/commands';
import { findTrial } from '../../src/lib/server/trials/trial';
import { leaseJob } from '../../src/lib/server/work/jobs';
import { refusal, trialInput, useQueue } from '../support/queue';

const HOUR_MS = 3_600_000;

describe('a trial once more after some time', () => {
	const q = useQueue();
	const begun = Date.parse('2026-11-28T10:00:00Z');

	it('is queued for each age, and none of its loads is made before', () => {
		const { db } = q.now;
		const id = createTrial(db, trialInput());
		db.prepare("UPDATE trial SET status = 'done' WHERE id = ?").run(id);
		const repeats = repeatByAge(db, id, [24, 1], begun);
		expect(repeats.map((repeat) => findTrial(db, repeat)!.repeatOf)).to.deep.equal([id, id]);
		expect(repeats.map((repeat) => findTrial(db, repeat)!.design.notBefore)).to.deep.equal([
			'2026-11-28T11:00:00.000Z',
			'2026-11-29T10:00:00.000Z'
		]);
		// Nothing of the first one is to be worked out here.
		db.exec("DELETE FROM job WHERE kind = 'derive'");
		const at = (hours: number) => new Date(begun + hours * HOUR_MS).toISOString();
		expect(leaseJob(db, 'lab', at(0.9))).to.equal(null);
		expect(leaseJob(db, 'lab', at(1.1))!.place!.trialId).to.equal(repeats[0]);
	});

	it('is refused of a trial in stages, whose change is done, and of one that has not ended', () => {
		const { db } = q.now;
		const stages = createTrial(db, trialInput({ kind: 'before-after', rounds: 4 }));
		expect(refusal(() => repeatByAge(db, stages))).to.match(/^409 A before-and-after trial/);
		const draft = createTrial(db, trialInput());
		expect(refusal(() => repeatByAge(db, draft))).to.match(/^409 Only a trial that has ended/);
		expect(refusal(() => repeatByAge(db, 999))).to.equal('404 There is no trial 999.');
	});
});
