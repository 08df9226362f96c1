import { expect } from 'chai';
import { HungWatch } from '../../src/lib/server/rooms/labs/hungWatch';
import { startTrial, createTrial } from '../../src/lib/server/rooms/trials/commands';
import { startRunner } from '../../src/lib/server/runner/loop';
import { readingsOfWatch } from '../../src/lib/server/rooms/watch/queries/readings';
import { requestDueReadings } from '../../src/lib/server/rooms/watch/due';
import { fakeLab, silent } from '../support/lab';
import { measuredLoad, trialInput, useQueue } from '../support/queue';
import { useVisitDoor, NOW } from '../support/visitDoor';
import { aVisit } from '../support/visits';
import { useWatches } from '../support/watches';
import { until } from '../support/world';

const HOUR_MS = 3_600_000;
const JUMPS = { 'an hour on': HOUR_MS, 'a day back': -24 * HOUR_MS };

/** Sets the time of this process, as somebody sets a machine's; what counts on by itself goes on. */
function jump(byMs: number): () => void {
	const RealDate = Date;
	const { now } = RealDate;
	class Jumped extends RealDate {
		constructor(...args: unknown[]) {
			if (args.length === 0) super(now() + byMs);
			else super(...(args as [number]));
		}
		static override now(): number {
			return now() + byMs;
		}
	}
	globalThis.Date = Jumped as DateConstructor;
	return () => {
		globalThis.Date = RealDate;
	};
}

describe('a clock that jumps', function () {
	this.timeout(60_000);
	const q = useQueue();
	let back: () => void = () => undefined;
	afterEach(() => back());

	for (const [name, byMs] of Object.entries(JUMPS))
		it(`${name} in the middle of a trial loses no load and counts none twice`, async () => {
			const id = createTrial(q.now.db, trialInput({ rounds: 4 }));
			startTrial(q.now.db, id);
			let calls = 0;
			const { lab, calls: seen } = fakeLab(async () => {
				if (++calls === 3) back = jump(byMs);
				// Long enough for heartbeats under the new time.
				if (calls === 3 || calls === 4) await new Promise((next) => setTimeout(next, 2500));
				return measuredLoad();
			});
			const runner = startRunner({ db: q.now.db, lab, log: silent });
			await until(() => q.now.trial(id).status === 'done', 30_000, 'the trial to end');
			runner.stop();
			await runner.finished;
			expect(q.now.loads(id)).to.have.length(8);
			// No load was thrown away as if the process had stood still, and none was given to another.
			expect([calls, seen.abandoned]).to.deep.equal([8, 0]);
		});

	it('ends no lab that lives, and spares none that hangs', () => {
		let monotonic = 1000;
		let wall = Date.parse('2026-11-30T10:00:00Z');
		const iso = (ms: number) => new Date(ms).toISOString();
		const watch = new HungWatch(
			60_000,
			() => monotonic,
			() => wall
		);
		const lab = { id: 'lab', beatAt: iso(wall), loadUntil: iso(wall + 30_000) };
		const pass = (ms: number) => {
			monotonic += ms;
			wall += ms;
		};
		expect(watch.isHung(lab)).to.equal(false);
		for (const byMs of Object.values(JUMPS)) {
			wall += byMs;
			pass(5000);
			expect(watch.isHung(lab)).to.equal(false);
			pass(2000);
			lab.beatAt = iso(wall);
			expect(watch.isHung(lab)).to.equal(false);
		}
		// Its load had 30 s and a minute of patience; 14 s have passed.
		for (let beats = 0; beats < 36; beats++) {
			pass(2000);
			lab.beatAt = iso(wall);
			expect(watch.isHung(lab), `after ${14 + 2 * (beats + 1)} s`).to.equal(false);
		}
		pass(6000);
		lab.beatAt = iso(wall);
		expect(watch.isHung(lab), 'its load does not end').to.equal(true);
		lab.loadUntil = iso(wall + 30_000);
		expect(watch.isHung(lab)).to.equal(false);
		pass(61_000);
		expect(watch.isHung(lab), 'it is silent').to.equal(true);
	});

	describe('in the middle of visits', () => {
		const own = useVisitDoor(q);
		it('counts each page view once, in the hour in which it came', async () => {
			const { beacon, send, counted } = own;
			const visit = aVisit();
			const at = (ms: number) => ({ now: NOW + ms });
			await send(beacon([visit], {}, NOW), at(0));
			await send(beacon([{ ...visit, sending: 2 }], {}, NOW + HOUR_MS), at(HOUR_MS));
			await send(beacon([{ ...visit, sending: 3 }], {}, NOW - 24 * HOUR_MS), at(-24 * HOUR_MS));
			await send(beacon([aVisit()], {}, NOW - 24 * HOUR_MS), at(-24 * HOUR_MS));
			expect(counted('/timetable')).to.equal(1);
			expect(counted('/timetable', undefined, '2026-11-19', '2026-11-20')).to.equal(2);
		});
	});

	describe('in the middle of a watch', () => {
		const watches = useWatches(() => q.now.db);
		it('takes no reading twice', () => {
			const { db, id } = watches.furnish();
			const nextAt = () => q.now.value<string>('SELECT next_at FROM watch WHERE id = ?', id);
			const due = new Date(Date.parse(nextAt()) + 60_000);
			requestDueReadings(db, due);
			watches.work();
			const after = nextAt();
			expect(Date.parse(after)).to.be.above(due.getTime());
			requestDueReadings(db, new Date(due.getTime() - 24 * HOUR_MS));
			requestDueReadings(db, new Date(due.getTime() + HOUR_MS));
			expect(readingsOfWatch(db, id)).to.have.length(1);
			expect(nextAt()).to.equal(after);
		});
	});
});
