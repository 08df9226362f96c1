/** A data folder with its queue, worked through as a lab does, with made-up loads. */
import { expect } from 'chai';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import * as v from 'valibot';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import type { MeasuredLoad } from '$core/load/record/record';
import type { Figures } from '$core/metrics/catalogue';
import { NewTrialInput } from '$core/trial/design/input';
import { openDatabase, type Db } from '../../src/lib/server/base/db/connection';
import { NotPossible } from '../../src/lib/server/base/refusal';
import { loadsOfTrial } from '../../src/lib/server/rooms/loads/queries/loads';
import { createTrial, startTrial } from '../../src/lib/server/rooms/trials/commands';
import { startSlot } from '../../src/lib/server/rooms/trials/orders';
import { storeSettling, storeTrialLoad } from '../../src/lib/server/rooms/trials/progress';
import { findTrial, type Trial } from '../../src/lib/server/rooms/trials/trial';
import { finishJob, leaseJob, type Job, type TrialSlot } from '../../src/lib/server/base/queue/jobs';
import { recordOf } from './records';

export type TrialExtra = Partial<v.InferInput<typeof NewTrialInput>>;

/** A small trial of two arms. */
export const trialInput = (extra: TrialExtra = {}): NewTrialInput =>
	v.parse(NewTrialInput, {
		question: 'Is it?',
		kind: 'side-by-side',
		arms: [
			{ name: 'A', url: 'http://a.test', baseline: true },
			{ name: 'B', url: 'http://b.test/x' }
		],
		conditions: ['desktop'],
		rounds: 3,
		warmups: 0,
		seed: 5,
		lateLoads: false,
		...extra
	});

export type SlotJob = TrialSlot & { id: number; attempts: number; settle: boolean; job: Job };

/** What a call says when it is refused. */
export function refusal(work: () => unknown): string {
	try {
		work();
	} catch (error) {
		if (error instanceof NotPossible) return `${error.status} ${error.message}`;
		throw error;
	}
	return 'allowed';
}

export function measuredLoad(
	candidate: Parameters<typeof recordOf>[0] = {},
	picture: Buffer | null = null
): MeasuredLoad {
	const usual = { score: 80, lcp: 2000, cls: 0, tbt: 100, wire: 500_000 };
	const record = recordOf({
		conditions: BUILT_IN_CONDITIONS[1]!,
		...candidate,
		figures: { ...usual, ...candidate.figures }
	});
	return { record, frames: [], picture, stepPicture: null };
}

export const FAILED: Parameters<typeof recordOf>[0] = {
	status: 'failed',
	failure: { code: 'refused', message: 'b.test refused the connection.', advice: 'Check it.' }
};

/** A load during which the machine was busy. */
export function disturbedLoad(figures: Partial<Figures> = {}): Parameters<typeof recordOf>[0] {
	const blank = recordOf();
	const track = { endsMs: [100], busyMs: [100], stolenMs: [0], foreignMs: [60], pressureMs: null };
	const calm = { track, share: 0.6, burst: 0.6, disturbed: true, waitedMs: 0, gaveUp: false, frequencyMhz: null };
	return { figures, environment: { ...blank.environment, calm } };
}

export class TestQueue {
	folder = mkdtempSync(join(tmpdir(), 'zafra-queue-'));
	db: Db = openDatabase(this.folder);

	end(): void {
		this.db.close();
		rmSync(this.folder, { recursive: true });
	}

	/** Create and start a trial. @returns its id */
	make(extra: TrialExtra = {}): number {
		const id = createTrial(this.db, trialInput(extra));
		startTrial(this.db, id);
		return id;
	}

	/** The next stage of a before-and-after trial. */
	startStage(id: number): void {
		startTrial(this.db, id);
	}

	trial(id: number): Trial {
		return findTrial(this.db, id)!;
	}

	loads(id: number) {
		return loadsOfTrial(this.db, id);
	}

	/** The next load or settling of a trial; what is to be derived is passed over, as if done. */
	lease(labId = 'me'): SlotJob | null {
		for (let job = leaseJob(this.db, labId); job; job = leaseJob(this.db, labId)) {
			const { id, attempts, kind, slot } = job;
			if (slot) startSlot(this.db, slot);
			if (slot) return { ...slot, id, attempts, settle: kind === 'settle', job };
			finishJob(this.db, job, labId);
		}
		return null;
	}

	/** @returns the id of the stored load */
	finish(slot: SlotJob, candidate: Parameters<typeof recordOf>[0] = {}, picture: Buffer | null = null): number {
		return this.db.transaction(() => {
			expect(finishJob(this.db, slot.job, 'me')).to.equal(true);
			return storeTrialLoad(this.db, slot.job, slot.job.slot!, measuredLoad(candidate, picture));
		})();
	}

	settle(slot: SlotJob, result: unknown): void {
		finishJob(this.db, slot.job, 'me');
		storeSettling(this.db, slot.job, slot.job.slot!, result);
	}

	/** Work the queue through. @returns the places, in order */
	runAll(figuresOf: (job: SlotJob) => Partial<Figures> = () => ({}), most = 10_000): SlotJob[] {
		const done: SlotJob[] = [];
		for (let slot = this.lease(); slot && done.length < most; slot = this.lease()) {
			this.finish(slot, { figures: figuresOf(slot) });
			done.push(slot);
		}
		return done;
	}

	/** One value of a query. */
	value<Value>(sql: string, ...bound: unknown[]): Value {
		return this.db
			.prepare(sql)
			.pluck()
			.get(...bound) as Value;
	}
}

/** A fresh one for each test of the describe that calls this. */
export function useQueue(): { now: TestQueue } {
	const held = { now: null as unknown as TestQueue };
	beforeEach(() => {
		held.now = new TestQueue();
	});
	afterEach(() => held.now.end());
	return held;
}
