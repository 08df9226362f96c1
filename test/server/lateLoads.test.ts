import { expect } from 'chai';
import { requestedOrder, requestsOfTrial } from '../../src/lib/server/rooms/loads/requested';
import { storeRequestedLoad } from '../../src/lib/server/rooms/loads/commands';
import { settleAfterRequest } from '../../src/lib/server/rooms/trials/progress';
import { deriveJudgement } from '../../src/lib/server/rooms/trials/judgement';
import { lateLoadsOf } from '../../src/lib/server/rooms/trials/lateView';
import { listedAnswer } from '../../src/lib/server/rooms/trials/listedAnswer';
import { wholeSheet } from '../../src/lib/server/rooms/trials/sheet/whole';
import { checkLateWork, deleteTrial, startTrial, stopTrial } from '../../src/lib/server/rooms/trials/commands';
import { deleteQueuedJob, finishJob, leaseJob, type Job } from '../../src/lib/server/base/queue/jobs';
import { emptyRecord } from '$core/load/record/emptyRecord';
import { measuredLoad, useQueue } from '../support/queue';

describe('late loads of a trial', () => {
	const q = useQueue();
	const make = (extra: object = {}) => q.now.make({ rounds: 8, primary: ['tbt', 'lcp'], lateLoads: true, ...extra });
	/** The second arm blocks for 300 ms less, on paper. */
	const runRounds = (id: number) => {
		const [first] = q.now.trial(id).design.arms;
		for (let placed = nextPlaced(); placed; placed = nextPlaced())
			q.now.finish(placed, { figures: { tbt: (placed.armId === first!.id ? 400 : 100) + placed.round, lcp: 2000 } });
	};
	/** Leaves the late loads in the queue. */
	const nextPlaced = () => {
		const open = q.now.value<number>(
			"SELECT count(*) FROM trial_place JOIN job ON job.id = job_id WHERE status = 'queued'"
		);
		return open ? q.now.lease() : null;
	};
	const lateJobs = () => {
		const jobs: Job[] = [];
		for (let job = leaseJob(q.now.db, 'me'); job; job = leaseJob(q.now.db, 'me')) {
			if (job.subject.kind === 'arm') jobs.push(job);
			else finishJob(q.now.db, job, 'me');
		}
		return jobs;
	};
	/** Blocking that comes back in the patient load of an arm, ms. */
	const store = (job: Job, later: (armId: number) => number) => {
		const { version, patience } = requestedOrder(q.now.db, job);
		const blank = emptyRecord('http://b.test/x', null, '2026-11-24T10:00:00.000Z', null);
		const figures = { ...blank.figures, tbt: 100, wire: 500_000 };
		const work = { requests: 2, wireBytes: 80_000, decodedBytes: 90_000, scriptMs: 350 };
		const figuresWith = { ...figures, tbt: 100 + later(job.subject.id) };
		const existing = patience
			? { postponed: { fromMs: 4000, untilMs: 19_000, firstMs: 7000, ...work, figuresWith } }
			: { heldBack: { nudgedAtMs: 4000, settledMs: 5000, ...work, wireBytes: 900, figuresWith: figures } };
		finishJob(q.now.db, job, 'me');
		storeRequestedLoad(q.now.db, { job, version, measured: measuredLoad({ ...existing, settledMs: 2000, figures }) });
		settleAfterRequest(q.now.db, job.subject);
	};

	it('are asked for by the trial itself once its rounds are done, and it ends with the last of them', () => {
		const id = make();
		runRounds(id);
		expect(q.now.trial(id).status).to.equal('running');
		expect(q.now.trial(id).design.looks, 'no answer before').to.deep.equal([]);
		const kinds = requestsOfTrial(q.now.db, id).map(({ armId, patience }) => `${armId} ${patience}`);
		const [a, b] = q.now.trial(id).design.arms.map((arm) => arm.id);
		expect(kinds).to.have.members([`${a} true`, `${a} false`, `${b} true`, `${b} false`]);
		const jobs = lateJobs();
		jobs.slice(1).forEach((job) => store(job, () => 0));
		expect(q.now.trial(id).status).to.equal('running');
		store(jobs[0]!, () => 0);
		expect(q.now.trial(id).status).to.equal('done');
		expect(q.now.trial(id).design.looks).to.have.length(1);
	});

	it('take a gain away that comes back by itself: on the sheet and in lists alike', async () => {
		const id = make();
		runRounds(id);
		const [, b] = q.now.trial(id).design.arms.map((arm) => arm.id);
		for (const job of lateJobs()) store(job, (arm) => (arm === b ? 350 : 0));
		const sheet = await wholeSheet(q.now.db, q.now.trial(id), '');
		const [answer] = sheet.boards[0]!.answers;
		expect(answer!.sentence).to.match(/^In one load what “B” saves in blocking time came back by itself, 5/);
		expect(answer!.rows.find((row) => row.metric === 'tbt')!.word).to.equal('comes back later');
		expect(answer!.caveats.held).to.include('“B” postpones work');
		deriveJudgement(q.now.db, id);
		const outcome = q.now.value<string>(
			"SELECT body FROM derived WHERE kind = 'outcome' AND subject_kind = 'trial' AND subject_id = ?",
			id
		);
		expect(JSON.parse(outcome), 'what lists filter by').to.deep.equal([
			{ condition: 'desktop', arm: b, tone: 'mixed' }
		]);
		expect(sheet.worth[0]!.words).not.to.include('gains');
		expect(listedAnswer(q.now.db, q.now.trial(id)).strips[0]!.sentence).to.equal(answer!.sentence);
		expect(sheet.parts.find((part) => part.id === 'held')!.finding).to.include(
			'by themselves after the page has settled'
		);
	});

	it('that are called off do not hold the trial up', () => {
		const id = make();
		runRounds(id);
		for (const { id: job, armId } of requestsOfTrial(q.now.db, id)) {
			expect(deleteQueuedJob(q.now.db, job)).to.equal(true);
			settleAfterRequest(q.now.db, { kind: 'arm', id: armId! });
		}
		expect(requestsOfTrial(q.now.db, id)).to.deep.equal([]);
		expect(q.now.trial(id).status).to.equal('done');
		expect(lateLoadsOf(q.now.db, id).every(({ facts }) => facts === null)).to.equal(true);
	});

	it('of a trial that was stopped meanwhile do not keep it from its end when it is started again', () => {
		const id = make();
		runRounds(id);
		stopTrial(q.now.db, id);
		for (const job of lateJobs()) store(job, () => 0);
		expect(q.now.trial(id).status).to.equal('stopped');
		startTrial(q.now.db, id);
		expect(q.now.trial(id).status).to.equal('done');
	});

	it('go with their trial when it is deleted', () => {
		const id = make();
		runRounds(id);
		deleteTrial(q.now.db, id);
		expect(q.now.value<number>("SELECT count(*) FROM job WHERE status = 'queued'")).to.equal(0);
	});

	it('are asked of a stage while it lasts, and of no page against itself', () => {
		const staged = make({
			kind: 'before-after',
			arms: [
				{ name: 'Before', url: 'http://a.test' },
				{ name: 'After', url: 'http://a.test' }
			]
		});
		runRounds(staged);
		const [before] = q.now.trial(staged).design.arms;
		expect(new Set(requestsOfTrial(q.now.db, staged).map(({ armId }) => armId))).to.deep.equal(new Set([before!.id]));
		for (const job of lateJobs()) store(job, () => 0);
		expect(q.now.trial(staged).status).to.equal('waiting');
		const same = make({ kind: 'same-page', arms: [{ name: 'A', url: 'http://a.test' }] });
		runRounds(same);
		expect(q.now.trial(same).status).to.equal('done');
	});

	it('can be asked for again at any time', () => {
		const id = make({ lateLoads: false });
		runRounds(id);
		expect(q.now.trial(id).status).to.equal('done');
		const [, b] = q.now.trial(id).design.arms;
		expect(checkLateWork(q.now.db, id, b!.id)).to.have.length(2);
		for (const job of lateJobs()) store(job, () => 350);
		expect(q.now.trial(id).status).to.equal('done');
		expect(lateLoadsOf(q.now.db, id).filter(({ facts }) => facts)).to.have.length(2);
	});
});
