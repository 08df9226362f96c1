/** Loading a page: of a trial's round, or outside any trial. */
import { setTimeout as pause } from 'node:timers/promises';
import type { LoadOrder } from '$core/load/journey/order';
import type { FailureCode, MeasuredLoad } from '$core/load/record/record';
import { failedLoad } from '$core/load/record/failedLoad';
import { failure } from '../../../../lab/failure';
import { storeRequestedLoad } from '../../rooms/loads/commands';
import { requestedOrder } from '../../rooms/loads/requested';
import { seenOnBehalf } from '../../rooms/trials/seen';
import { startSlot } from '../../rooms/trials/orders';
import { settleAfterRequest, stopForFullDisk, storeTrialLoad } from '../../rooms/trials/progress';
import { storeAuditLoad } from '../../rooms/audits/commands';
import { storeReadingLoad } from '../../rooms/watch/blocks';
import { finishJob, giveBack, renewLease, type Job } from '../../base/queue/jobs';
import { LeaseLost, type Handler, type Workplace } from '../handler';
import { previewAccessOf } from '../../rooms/clients/view';

/** The browser is why the load failed, and the page is not. */
const OF_THE_BROWSER: ReadonlySet<FailureCode> = new Set(['browser-killed', 'browser-blind']);
/** A load whose browser was ended from outside, or painted nothing any more, is tried this often. */
const MOST_KILLS = 3;
/** Ctrl-C may end the site under test a moment before it reaches the lab: its failure is none of the page. */
const END_IN_SIGHT_MS = 300;

/** How often a job's load failed by its browser. */
const kills = new Map<number, number>();

/** What a job asks for, and how its load is stored. */
interface Task {
	about: object;
	order: LoadOrder;
	store(measured: MeasuredLoad): void;
}

function taskOf(job: Job, { db }: Workplace): Task {
	const { slot } = job;
	if (slot) {
		const { order, armName } = startSlot(db, slot);
		const about = { trial: slot.trialId, arm: armName, conditions: order.conditions.id, round: slot.round };
		return { about, order, store: (measured) => storeTrialLoad(db, job, slot, measured) };
	}
	const { version, ...order } = requestedOrder(db, job);
	return {
		about: { job: job.id },
		order,
		store: (measured) => {
			if (job.subject.kind === 'reading') return storeReadingLoad(db, job, version, measured);
			if (job.subject.kind === 'audit') return storeAuditLoad(db, job, version, measured);
			storeRequestedLoad(db, { job, version, measured, seen: seenOnBehalf(db, job.subject, measured.record) });
			settleAfterRequest(db, job.subject);
		}
	};
}

/** Of one round, or of one reading: its loads are compared with one another. */
function blockOf({ slot, subject }: Job): string | undefined {
	if (slot) return `trial:${slot.trialId}/${slot.stage}/${slot.round}`;
	return subject.kind === 'reading' ? `reading:${subject.id}` : undefined;
}

/** A load of the longest cap with fifty steps that wait. */
const LONGEST_MS = 7_200_000;

export const load: Handler = {
	longestMs: LONGEST_MS,
	async run(job, at) {
		const { db, labId, log } = at;
		const task = taskOf(job, at);
		if (!renewLease(db, job.id, labId)) return;
		const order = { ...task.order, access: previewAccessOf(db, task.order.url), block: blockOf(job) };
		at.note(job, at.lab.longestMs(order));
		const measured = await at.lab.measure(order);
		const { record } = measured;
		if (record.status === 'failed') await pause(END_IN_SIGHT_MS);
		const back = whyGivenBack(job, measured, at);
		log.info(
			{ ...task.about, status: record.status, labMs: record.labMs, back },
			record.failure?.message ?? 'measured'
		);
		if (back === 'lost') return;
		if (back) return at.persist(() => giveBack(db, labId, { countAttempt: false }));
		kills.delete(job.id);
		await at.persist(() =>
			db
				.transaction(() => {
					if (!finishJob(db, job, labId)) throw new LeaseLost();
					task.store(measured);
				})
				.immediate()
		);
	},
	giveUp(job, at) {
		const { order, store } = taskOf(job, at);
		store(lostLoad(order, job.attempts - 1));
	},
	diskFull({ slot }, { db }) {
		if (slot) stopForFullDisk(db, slot.trialId);
	}
};

/** A load that took the lab down again and again. */
function lostLoad(order: LoadOrder, times: number): MeasuredLoad {
	const { reason } = failure('internal', `the lab ended ${times} times in the middle of this load`);
	return { record: failedLoad(order, new Date(), reason), frames: [], picture: null, stepPicture: null };
}

/** Why a load is neither stored nor counted, but loaded again; null when it is stored. */
function whyGivenBack({ id }: Job, { record }: MeasuredLoad, at: Workplace): string | null {
	const interrupted = at.interrupted();
	if (interrupted === 'lost' || interrupted === 'frozen') return interrupted;
	if (record.status === 'ok') return null;
	if (interrupted === 'stopping') return interrupted;
	if (!record.failure || !OF_THE_BROWSER.has(record.failure.code)) return null;
	const count = (kills.get(id) ?? 0) + 1;
	kills.set(id, count);
	return count < MOST_KILLS ? record.failure.code : null;
}
