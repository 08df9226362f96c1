import { expect } from 'chai';
import { effectByAge } from '../../src/lib/server/rooms/trials/effectByAge';
import { wholeSheet } from '../../src/lib/server/rooms/trials/sheet/whole';
import { repeatByAge } from '../../src/lib/server/rooms/trials/repeat';
import { createTrial } from '../../src/lib/server/rooms/trials/commands';
import { findTrial } from '../../src/lib/server/rooms/trials/trial';
import { leaseJob } from '../../src/lib/server/base/queue/jobs';
import { deriveAll } from '../support/derive';
import { refusal, trialInput, useQueue } from '../support/queue';

const HOUR_MS = 3_600_000;

describe('a trial once more after some time', () => {
	const q = useQueue();
	const begun = Date.parse('2026-11-28T10:00:00Z');

	it('is queued for each age, and none of its loads is made before', () => {
		const { db } = q.now;
		// What is queued now is not due before now.
		const begun = Math.ceil(Date.now() / HOUR_MS) * HOUR_MS;
		const id = createTrial(db, trialInput());
		db.prepare("UPDATE trial SET status = 'done' WHERE id = ?").run(id);
		const repeats = repeatByAge(db, id, [24, 1], begun);
		expect(repeats.map((repeat) => findTrial(db, repeat)!.repeatOf)).to.deep.equal([id, id]);
		expect(repeats.map((repeat) => findTrial(db, repeat)!.design.notBefore)).to.deep.equal([
			new Date(begun + HOUR_MS).toISOString(),
			new Date(begun + 24 * HOUR_MS).toISOString()
		]);
		// Nothing of the first one is to be worked out here.
		db.exec("DELETE FROM job WHERE kind = 'derive'");
		const at = (hours: number) => new Date(begun + hours * HOUR_MS).toISOString();
		expect(leaseJob(db, 'lab', at(0.9))).to.equal(null);
		expect(leaseJob(db, 'lab', at(1.1))!.slot!.trialId).to.equal(repeats[0]);
	});

	it('shows the effect at each age on one board, by metric, variant and conditions', async () => {
		const { db } = q.now;
		const work = (gain: number) =>
			q.now.runAll(({ trialId, armId, round }) => {
				const isBaseline = findTrial(db, trialId)!.design.arms[0]!.id === armId;
				return { lcp: 2000 + round * 3 - (isBaseline ? 0 : gain) };
			});
		const first = q.now.make({ rounds: 8 });
		work(600);
		await deriveAll(db);
		expect(effectByAge(db, findTrial(db, first)!)).to.deep.equal([]);
		const [young, old] = repeatByAge(db, first, [1, 24], begun - 30 * 24 * HOUR_MS) as [number, number];
		work(300);
		const startedAt = db.prepare('UPDATE trial SET started_at = @at, ended_at = @at WHERE id = @id');
		for (const [id, hours] of [
			[first, 0],
			[young, 1],
			[old, 24]
		] as const)
			startedAt.run({ id, at: new Date(begun + hours * HOUR_MS).toISOString() });
		await deriveAll(db);
		// The same on the sheet of each of them.
		for (const id of [first, young, old]) {
			const [effect, ...others] = effectByAge(db, findTrial(db, id)!);
			expect(others).to.deep.equal([]);
			expect(effect).to.include({ label: 'B, Desktop', arm: 'B', baseline: 'A' });
			const lcp = effect!.metrics.find(({ metric }) => metric === 'lcp')!;
			expect(lcp.name).to.equal('Largest paint');
			expect(lcp.rows.map(({ name, arm, word }) => [name, arm, word])).to.deep.equal([
				['at first', '1.41\u00a0s', 'faster'],
				['1 hour later', '1.71\u00a0s', 'faster'],
				['24 hours later', '1.71\u00a0s', 'faster']
			]);
		}
		const { effectByAge: shown } = await wholeSheet(db, findTrial(db, old)!, 'lcp');
		expect(shown).to.have.length(1);
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
