import { expect } from 'chai';
import Database from 'better-sqlite3';
import { mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import * as v from 'valibot';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions';
import type { Figures } from '$core/metrics/catalogue';
import { NewTrialInput } from '$core/trial/input';
import { keepConditions, listConditions, dropConditions } from '../../src/lib/server/conditions/saved';
import { openDatabase, type Db } from '../../src/lib/server/db/connection';
import { findEvidencePicture, keepSettling, markersOf, settlingsOf } from '../../src/lib/server/trials/notes';
import { finishJob, leaseJob, openJobs, retryJob, type Job } from '../../src/lib/server/work/jobs';
import { insertLoad, loadsOfTrial } from '../../src/lib/server/loads/loads';
import {
	finishSingle,
	findSingle,
	leaseSingle,
	listSingles,
	releaseSingles
} from '../../src/lib/server/loads/requested';
import { findTrial } from '../../src/lib/server/trials/queries';
import {
	judgementForPage,
	judgementOf,
	trialAnswer,
	trialWithoutJudgement
} from '../../src/lib/server/trials/judgement';
import { evidenceOf, trialWithoutEvidence, workOutEvidence } from '../../src/lib/server/trials/evidence';
import { repeatTrial } from '../../src/lib/server/trials/repeat';
import { askForLoad, importHar, nudgeArm } from '../../src/lib/server/loads/commands';
import {
	addRounds,
	createTrial,
	leaveOut,
	noteChange,
	pauseTrial,
	resumeTrial,
	settleTrial,
	startTrial,
	stopTrial
} from '../../src/lib/server/trials/commands';
import { NotPossible } from '../../src/lib/server/http/refusal';
import { haltForSpace, isFull } from '../../src/lib/server/work/diskSpace';
import { recordOf, requestOf } from '../support/records';

const input = (extra: Partial<v.InferInput<typeof NewTrialInput>> = {}): NewTrialInput =>
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
		...extra
	});

/** What a call says when it is refused. */
function refusal(work: () => unknown): string {
	try {
		work();
	} catch (error) {
		if (error instanceof NotPossible) return `${error.status} ${error.message}`;
		throw error;
	}
	return 'allowed';
}

describe('trials in the queue', () => {
	let folder: string;
	let db: Db;
	beforeEach(() => {
		folder = mkdtempSync(join(tmpdir(), 'zafra-trials-'));
		db = openDatabase(folder);
	});
	afterEach(() => {
		db.close();
		rmSync(folder, { recursive: true });
	});

	/** As the runner does, with made-up figures. */
	function finish(
		job: Job,
		figures: Partial<Figures> = {},
		more: Parameters<typeof recordOf>[0] = {},
		picture: Buffer | null = null
	): number {
		expect(finishJob(db, job.id, 'me')).to.equal(true);
		const id = insertLoad(
			db,
			{ ...job, jobId: job.id },
			{
				record: recordOf({
					conditions: BUILT_IN_CONDITIONS[1]!,
					...more,
					figures: { score: 80, lcp: 2000, cls: 0, tbt: 100, wire: 500_000, ...figures }
				}),
				frames: [],
				picture
			}
		);
		settleTrial(db, job.trialId);
		return id;
	}
	function runAll(figuresOf: (job: Job) => Partial<Figures> = () => ({}), most = 10_000): Job[] {
		const done: Job[] = [];
		for (let job = leaseJob(db, 'me'); job && done.length < most; job = leaseJob(db, 'me')) {
			finish(job, figuresOf(job));
			done.push(job);
		}
		return done;
	}
	const leasedPlace = (trialId: number) => ({
		id: 0,
		trialId,
		armId: 1,
		conditionId: 'desktop',
		stage: 0,
		round: 1,
		warmup: false,
		settle: false,
		attempts: 1,
		retry: 0
	});
	const make = (extra: Partial<v.InferInput<typeof NewTrialInput>> = {}) => {
		const id = createTrial(db, input(extra));
		startTrial(db, id);
		return id;
	};

	it('wait while paused, go on, and stop; nothing measured is lost', () => {
		const id = make();
		finish(leaseJob(db, 'me')!);
		pauseTrial(db, id);
		expect(findTrial(db, id)).to.include({ status: 'waiting', paused: true });
		expect(leaseJob(db, 'me')).to.equal(null);
		resumeTrial(db, id);
		expect(refusal(() => resumeTrial(db, id))).to.match(/^409 .*not paused/);
		expect(runAll()).to.have.length(5);
		expect(findTrial(db, id)).to.include({ status: 'done', paused: false });
		expect(loadsOfTrial(db, id)).to.have.length(6);
		expect(refusal(() => pauseTrial(db, id))).to.match(/^409 .*not running/);
	});

	it('a load that ends while its trial is paused is kept, and the pause holds', () => {
		const id = make({ rounds: 1 });
		const job = leaseJob(db, 'me')!;
		pauseTrial(db, id);
		finish(job);
		expect(findTrial(db, id)).to.include({ status: 'waiting' });
		stopTrial(db, id);
		expect(findTrial(db, id)).to.include({ status: 'stopped', paused: false });
		startTrial(db, id);
		expect(runAll()).to.have.length(1);
	});

	it('take turns, a round each, and a round is not torn apart', () => {
		const [first, second] = [make({ rounds: 2 }), make({ rounds: 2 })];
		const order = runAll().map((job) => `${job.trialId}.${job.round}`);
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
		const [first, second] = [make({ rounds: 1 }), make({ rounds: 1 })];
		finish(leaseJob(db, 'me')!);
		finish(leaseJob(db, 'me')!);
		db.prepare("UPDATE trial SET leased_at = '2099-01-01T00:00:00.000Z' WHERE id = ?").run(first);
		db.prepare("UPDATE job SET leased_at = '2099-01-01T00:00:00.000Z' WHERE trial_id = ?").run(first);
		expect(runAll().map((job) => job.trialId)).to.deep.equal([second, second]);
		expect(findTrial(db, first)!.status).to.equal('done');
		expect(findTrial(db, second)!.status).to.equal('done');
	});

	it('go on when a site is down for a while: failures are counted, and too many leave no verdict', () => {
		const id = make({ rounds: 10, primary: ['lcp'] });
		const baseline = findTrial(db, id)!.design.arms[0]!.id;
		const reason = { code: 'refused' as const, message: 'b.test refused the connection.', advice: 'Check it.' };
		for (let job = leaseJob(db, 'me'); job; job = leaseJob(db, 'me')) {
			const down = job.armId !== baseline && job.round > 6;
			finish(job, down ? { lcp: null } : { lcp: 2000 + job.round }, down ? { status: 'failed', failure: reason } : {});
		}
		const judgement = judgementOf(db, findTrial(db, id)!);
		expect(findTrial(db, id)!.status).to.equal('done');
		expect(judgement.health.find((one) => one.arm !== baseline)).to.include({ loads: 10, failed: 4 });
		expect(judgement.results.find((one) => one.metric === 'lcp')).to.include({
			verdict: 'none',
			reason: '4 of 10 loads of “B” failed.'
		});
	});

	it('wait for their time, and spread over it', () => {
		const later = make({ notBefore: new Date(Date.now() + 3_600_000).toISOString() });
		expect(leaseJob(db, 'me')).to.equal(null);
		const spread = make({ spreadMinutes: 60, rounds: 3 });
		expect(runAll()).to.have.length(2);
		expect(openJobs(db, spread)).to.equal(4);
		expect(openJobs(db, later)).to.equal(6);
		const times = db
			.prepare('SELECT DISTINCT not_before FROM job WHERE trial_id = ? ORDER BY 1')
			.pluck()
			.all(spread) as string[];
		expect((Date.parse(times[1]!) - Date.parse(times[0]!)) / 60_000).to.be.closeTo(20, 0.01);
	});

	it('that are adaptive stop at the look at which all is decided', () => {
		const id = make({ adaptive: true, primary: ['lcp'] });
		expect(findTrial(db, id)!.design.rounds).to.equal(24);
		const done = runAll((job) => ({
			lcp: (findTrial(db, id)!.design.arms[0]!.id === job.armId ? 2000 : 3000) + job.round
		}));
		expect(done).to.have.length(20);
		expect(findTrial(db, id)).to.include({ status: 'done' });
		const judgement = judgementOf(db, findTrial(db, id)!);
		expect(judgement.looks.map((look) => [look.rounds, look.by])).to.deep.equal([[10, 'plan']]);
		expect(judgement.results.find((one) => one.metric === 'lcp')!.verdict).to.equal('worse');
	});

	it('that are adaptive and undecided go on to their end', () => {
		const id = make({ adaptive: true, primary: ['lcp'] });
		const baseline = findTrial(db, id)!.design.arms[0]!.id;
		// Two rounds of five the other way: open, with hope.
		const differences = [210, 240, -80, -10, 100];
		expect(
			runAll((job) => ({ lcp: 2000 + (job.armId === baseline ? 0 : differences[job.round % 5]!) + job.round }))
		).to.have.length(48);
		const trial = findTrial(db, id)!;
		expect(trial.status).to.equal('done');
		expect(trial.design.looks!.map((look) => look.rounds)).to.deep.equal([10, 14, 18, 24]);
		expect(trial.design.looks!.at(-1)!.spent).to.be.closeTo(0.04, 1e-12);
	});

	it('that are adaptive end when nothing open has hope, and may get rounds added', () => {
		const id = make({ adaptive: true, primary: ['lcp'] });
		const done = runAll((job) => ({ lcp: 2000 + 2500 * ((job.round * 7 + job.armId * 3) % 5) }));
		expect(done.length).to.be.below(48);
		expect(findTrial(db, id)!.status).to.equal('done');
		const reached = done.length / 2;
		addRounds(db, id, 2);
		runAll((job) => ({ lcp: 2000 + job.round }));
		const { looks } = findTrial(db, id)!.design;
		expect(looks!.at(-1)).to.include({ rounds: reached + 2, by: 'added' });
	});

	it('get rounds added as a further look that draws on the reserve; the first loads stay', () => {
		const id = make({ rounds: 3 });
		expect(refusal(() => addRounds(db, id, 2))).to.match(/^409 .*once the trial is done/);
		runAll();
		expect(refusal(() => addRounds(db, id, 0))).to.match(/^422/);
		addRounds(db, id, 2);
		const more = runAll();
		expect(more.map((job) => job.round).sort()).to.deep.equal([4, 4, 5, 5]);
		const trial = findTrial(db, id)!;
		expect(trial).to.include({ status: 'done' });
		expect(trial.design).to.include({ rounds: 5, added: 1 });
		expect(trial.design.looks!.map((look) => [look.rounds, Number(look.spent.toFixed(6)), look.by])).to.deep.equal([
			[3, 0.04, 'plan'],
			[5, 0.045, 'added']
		]);
	});

	it('tell the API nothing between looks but progress, spread and when the next look is', async () => {
		const id = make({ rounds: 4, primary: ['lcp'], targets: { lcp: 1800 } });
		for (let i = 0; i < 6; i++) finish(leaseJob(db, 'me')!, { lcp: 2000 + i });
		const before = await trialAnswer(db, findTrial(db, id)!);
		expect(before).to.deep.include({ results: [], looks: [], nextLook: 4, withoutExcluded: null, recipe: 'zafra-2' });
		expect(before.spread.map((one) => [one.metric, one.loads])).to.deep.equal([['lcp', 6]]);
		runAll(() => ({ lcp: 2000 }));
		const after = await trialAnswer(db, findTrial(db, id)!);
		expect(after).to.deep.include({ nextLook: null, looks: [{ rounds: 4, spent: 0.04, by: 'plan' }] });
		expect(after.results.find((one) => one.metric === 'lcp')!.target).to.deep.equal({
			value: 1800,
			standing: 'both-missed'
		});
	});

	it('stopped are looked at with what the rounds so far have earned, and the rest when they go on', () => {
		const id = make({ rounds: 8, primary: ['lcp'] });
		// Two whole rounds and half of a third: only whole ones are looked at.
		for (let i = 0; i < 5; i++) finish(leaseJob(db, 'me')!);
		expect(judgementOf(db, findTrial(db, id)!).results).to.deep.equal([]);
		stopTrial(db, id);
		const [look] = findTrial(db, id)!.design.looks!;
		expect(look).to.include({ rounds: 2, by: 'stop' });
		expect(look!.spent).to.be.closeTo(0.04 * 0.25 ** 1.5, 1e-12);
		startTrial(db, id);
		runAll();
		expect(findTrial(db, id)!.design.looks!.map((one) => [one.rounds, one.by])).to.deep.equal([
			[2, 'stop'],
			[8, 'plan']
		]);
	});

	it('load a failed load again at the end of its round, at most twice more, and not an arm that is down', () => {
		const id = make({ rounds: 2 });
		const order: string[] = [];
		let failures = 0;
		for (let job = leaseJob(db, 'me'); job; job = leaseJob(db, 'me')) {
			const fails = job.round === 1 && failures < 3;
			order.push(`${job.round}.${job.armId}.${job.retry}${fails ? ' failed' : ''}`);
			if (fails) {
				failures++;
				expect(finishJob(db, job.id, 'me')).to.equal(true);
				insertLoad(
					db,
					{ ...job, jobId: job.id },
					{
						record: recordOf({ status: 'failed', failure: { code: 'refused', message: 'x', advice: 'y' } }),
						frames: [],
						picture: null
					}
				);
				retryJob(db, job);
				settleTrial(db, job.trialId);
			} else finish(job);
		}
		const [a, b] = findTrial(db, id)!
			.design.arms.map((arm) => arm.id)
			.sort((x, y) => (order[0]!.includes(`1.${x}.`) ? -1 : 1) - (order[0]!.includes(`1.${y}.`) ? -1 : 1));
		expect(order.slice(0, 5)).to.deep.equal([
			`1.${a}.0 failed`,
			`1.${b}.0 failed`,
			`1.${a}.1 failed`,
			`1.${b}.1`,
			`1.${a}.2`
		]);
		expect(order.slice(5).every((one) => one.startsWith('2.'))).to.equal(true);
		const trial = findTrial(db, id)!;
		expect(trial.status).to.equal('done');
		expect(trial.design.looks!.map((look) => look.rounds)).to.deep.equal([2]);
		const third = { ...leasedPlace(id), retry: 2 };
		expect(retryJob(db, third)).to.equal(false);
	});

	it('leave loads out with a reason and count them again', () => {
		const id = make({ rounds: 3, primary: ['lcp'] });
		runAll();
		const [load] = loadsOfTrial(db, id);
		expect(refusal(() => leaveOut(db, load!.id, '  '))).to.match(/^422 Say why/);
		leaveOut(db, load!.id, 'The server was restarted');
		const lcp = (of: 'results' | 'withoutExcluded') =>
			judgementOf(db, findTrial(db, id)!)[of]?.find((one) => one.metric === 'lcp')?.n;
		expect([lcp('results'), lcp('withoutExcluded')]).to.deep.equal([3, 2]);
		expect(loadsOfTrial(db, id)[0]!.excluded).to.equal('The server was restarted');
		leaveOut(db, load!.id, null);
		expect([lcp('results'), lcp('withoutExcluded')]).to.deep.equal([3, undefined]);
		expect(refusal(() => leaveOut(db, 999, 'x'))).to.match(/^404/);
	});

	it('in stages remember what was changed, with its settings file, and start each stage once', () => {
		const id = make({
			kind: 'before-after',
			arms: [
				{ name: 'Before', url: 'http://a.test' },
				{ name: 'After', url: 'http://a.test' }
			],
			rounds: 2
		});
		runAll();
		expect(findTrial(db, id)!.status).to.equal('waiting');
		noteChange(db, id, { words: 'Larder on', fileName: 'larder.json', file: '{"on":true}' });
		startTrial(db, id, 1);
		startTrial(db, id, 1);
		expect(openJobs(db, id)).to.equal(2);
		expect(refusal(() => startTrial(db, id, 0))).to.match(/^409/);
		runAll();
		expect(findTrial(db, id)!.status).to.equal('done');
		expect(markersOf(db, id)[0]).to.include({
			stage: 1,
			words: 'Larder on',
			fileName: 'larder.json',
			file: '{"on":true}'
		});
		expect(refusal(() => addRounds(db, id, 2))).to.match(/^409 .*in the past/);
	});

	it('wait for stable pages first, once for each arm and device, and keep what was seen', () => {
		const id = make({ settleWithinS: 30, conditions: ['phone', 'desktop'] });
		const jobs = Array.from({ length: 4 }, () => leaseJob(db, 'me')!);
		expect(jobs.every((job) => job.settle)).to.equal(true);
		expect(new Set(jobs.map((job) => `${job.armId}${job.conditionId}`)).size).to.equal(4);
		for (const job of jobs) {
			finishJob(db, job.id, 'me');
			keepSettling(db, job, { stable: true, words: 'Stable' });
		}
		expect(settlingsOf<{ words: string }>(db, id).map((one) => one.result.words)).to.deep.equal(
			Array(4).fill('Stable')
		);
		expect(leaseJob(db, 'me')!.settle).to.equal(false);
	});

	it('keep a frozen copy of their conditions, whatever the workshop does later', () => {
		keepConditions(db, { ...BUILT_IN_CONDITIONS[1]!, id: 'slow-desk', name: 'Slow desk' });
		const id = make({ conditions: ['slow-desk'] });
		keepConditions(db, { ...BUILT_IN_CONDITIONS[1]!, id: 'slow-desk', name: 'Slow desk', capMs: 9000 });
		expect(findTrial(db, id)!.design.conditions[0]!.capMs).to.equal(45_000);
		dropConditions(db, 'slow-desk');
		expect(findTrial(db, id)!.design.conditions[0]!.name).to.equal('Slow desk');
		expect(listConditions(db).map((one) => one.id)).to.deep.equal(['phone', 'desktop']);
		expect(refusal(() => createTrial(db, input({ conditions: ['tablet'] })))).to.equal(
			'422 Unknown conditions “tablet”. Known are: phone, desktop.'
		);
	});

	it('are refused in words where a design makes no sense', () => {
		expect(refusal(() => createTrial(db, input({ kind: 'before-after', adaptive: true })))).to.match(
			/^422 .*adaptive trial needs interleaved/
		);
		const issue = (extra: object) => v.safeParse(NewTrialInput, { ...input(), ...extra }).issues?.[0].message;
		expect(issue({ kind: 'same-page' })).to.match(/give one address/);
		expect(
			issue({
				kind: 'sweep',
				arms: [
					{ name: 'A', url: 'http://a.test', page: 'Home' },
					{ name: 'B', url: 'http://b.test', page: 'Article' }
				]
			})
		).to.match(/has two arms/);
		expect(issue({ notBefore: 'tomorrow' })).to.match(/not a time/);
		expect(issue({ steps: [{ clik: '#a' }] })).to.match(/one of the verbs/);
	});

	it('of one page make two looks of one address; sweeps judge each page and all together', () => {
		const same = createTrial(db, input({ kind: 'same-page', arms: [{ name: 'Home', url: 'http://a.test' }] }));
		expect(findTrial(db, same)!.design.arms.map((arm) => [arm.name, arm.url, arm.baseline])).to.deep.equal([
			['Home', 'http://a.test/', true],
			['Home, second look', 'http://a.test/', false]
		]);
		const arms = ['Home', 'Article'].flatMap((page) =>
			['Without', 'With'].map((name) => ({ name, page, url: `http://${name.toLowerCase()}.test/${page}` }))
		);
		const id = make({ kind: 'sweep', arms, rounds: 7, primary: ['lcp'] });
		const names = new Map(findTrial(db, id)!.design.arms.map((arm) => [arm.id, arm]));
		runAll((job) => ({
			lcp:
				2000 +
				job.round +
				(names.get(job.armId)!.name === 'With' ? (names.get(job.armId)!.page === 'Home' ? 400 : 600) : 0)
		}));
		const results = judgementOf(db, findTrial(db, id)!).results.filter((one) => one.metric === 'lcp');
		expect(
			results.map((one) => [names.get(one.arm)?.page ?? 'all', Number(one.shift!.estimate.toFixed(2))])
		).to.deep.equal([
			['Home', 400],
			['Article', 600],
			['all', 0.25]
		]);
		const three = v.safeParse(NewTrialInput, {
			...input(),
			kind: 'sweep',
			arms: [...arms, { name: 'Third', page: 'Home', url: 'http://third.test/' }]
		});
		expect(three.issues?.[0].message).to.match(/two arms with the same “page”/);
	});

	it('are repeated with the same design and another seed', () => {
		const id = make({ rounds: 2, steps: [{ expect: { selector: 'h1' } }] });
		const again = findTrial(db, repeatTrial(db, id))!;
		expect(again).to.include({ repeatOf: id, status: 'draft', question: 'Is it?' });
		expect(again.design.steps).to.deep.equal([{ expect: { selector: 'h1' } }]);
		expect(again.design.seed).to.not.equal(5);
		expect(findTrial(db, repeatTrial(db, again.id))!.repeatOf).to.equal(id);
	});

	it('end clearly when the disk is full: nothing is half written, and what was measured stays', () => {
		const id = make();
		finish(leaseJob(db, 'me')!);
		const job = leaseJob(db, 'me')!;
		const pages = db.pragma('page_count', { simple: true }) as number;
		db.pragma(`max_page_count = ${pages}`);
		let caught: unknown = null;
		try {
			db.transaction(() => {
				finishJob(db, job.id, 'me');
				// Nothing that gzip could make small.
				const noise = Buffer.from(Array.from({ length: 400_000 }, (_, i) => (i * 2_654_435_761) >>> 13));
				insertLoad(db, { ...job, jobId: job.id }, { record: recordOf(), frames: [], picture: noise });
			}).immediate();
		} catch (error) {
			caught = error;
		}
		expect(isFull(caught)).to.equal(true);
		haltForSpace(db, id, 'me');
		expect(findTrial(db, id)!.status).to.equal('stopped');
		expect(findTrial(db, id)!.message).to.match(/disk is full.*Make room/);
		expect(loadsOfTrial(db, id)).to.have.length(1);
		expect(db.pragma('integrity_check', { simple: true })).to.equal('ok');
		db.pragma(`max_page_count = ${pages + 10_000}`);
		startTrial(db, id);
		expect(runAll()).to.have.length(5);
		expect(findTrial(db, id)!.status).to.equal('done');
	});

	it('are judged by the lab process when they are heavy', async () => {
		const id = make({ rounds: 3 });
		runAll();
		expect(trialWithoutJudgement(db)).to.equal(id);
		const trial = findTrial(db, id)!;
		const judgement = await judgementForPage(db, trial, loadsOfTrial(db, id));
		expect(judgement.results.length).to.be.above(0);
		expect(trialWithoutJudgement(db)).to.equal(null);
	});

	it('have no evidence of rounds that no look has reached', async () => {
		const id = make({ rounds: 4, primary: ['wire'] });
		for (let i = 0; i < 4; i++) {
			const job = leaseJob(db, 'me')!;
			finish(
				job,
				{ wire: 1000 * job.armId },
				{ requests: [requestOf({ type: 'document', wireBytes: 1000 * job.armId })] }
			);
		}
		pauseTrial(db, id);
		await workOutEvidence(db, id);
		expect(evidenceOf(db, findTrial(db, id)!)!.result.arms.map((one) => one.why)).to.deep.equal([null]);
	});

	it('have their evidence worked out once, and again when the loads change', async () => {
		const id = make({ rounds: 2, primary: ['wire'] });
		const baseline = findTrial(db, id)!.design.arms[0]!.id;
		const shot = (red: number) =>
			sharp({ create: { width: 120, height: 80, channels: 3, background: '#fff' } })
				.composite([
					{
						input: { create: { width: 60, height: 80, channels: 3, background: { r: red, g: 20, b: 20 } } },
						left: 0,
						top: 0
					}
				])
				.webp({ lossless: true })
				.toBuffer();
		const pictures = [await shot(20), await shot(240)];
		for (let job = leaseJob(db, 'me'); job; job = leaseJob(db, 'me')) {
			const isBaseline = job.armId === baseline;
			const url = isBaseline ? 'http://a.test/' : 'http://b.test/x';
			const requests = [
				requestOf({ url, type: 'document', wireBytes: 1000 }),
				...(isBaseline ? [] : [requestOf({ url: 'https://bell.test/b.js', type: 'script', wireBytes: 40_000 })])
			];
			finish(
				job,
				{ wire: isBaseline ? 1000 : 41_000 },
				{ url, finalUrl: url, requests },
				pictures[isBaseline ? 0 : 1]!
			);
		}
		expect(trialWithoutEvidence(db)).to.equal(id);
		// One that could not be worked out does not stand in the way of others.
		expect(trialWithoutEvidence(db, new Set([id]))).to.equal(null);
		await workOutEvidence(db, id);
		expect(trialWithoutEvidence(db)).to.equal(null);
		const { result, stale } = evidenceOf(db, findTrial(db, id)!)!;
		expect(stale).to.equal(false);
		const [arm] = result.arms;
		expect(arm!.why!.causes[0]!.subject).to.equal('bell.test');
		expect(arm!.broke.pictureShare).to.be.closeTo(0.5, 0.03);
		expect(arm!.fairness.find((line) => line.id === 'picture')!.state).to.equal('differs');
		expect(findEvidencePicture(db, id, arm!.picture!)!.subarray(8, 12).toString()).to.equal('WEBP');
		leaveOut(db, loadsOfTrial(db, id)[0]!.id, 'why not');
		expect(trialWithoutEvidence(db)).to.equal(id);
	});
});

describe('single loads', () => {
	let folder: string;
	let db: Db;
	beforeEach(() => {
		folder = mkdtempSync(join(tmpdir(), 'zafra-singles-'));
		db = openDatabase(folder);
	});
	afterEach(() => {
		db.close();
		rmSync(folder, { recursive: true });
	});

	it('are asked for, leased once and finished once', () => {
		const id = askForLoad(db, { url: 'http://a.test', conditions: 'phone', nudge: true });
		expect(findSingle(db, id)!.conditions).to.include({ id: 'phone', input: 'nudge' });
		expect(leaseSingle(db, 'me')!.id).to.equal(id);
		expect(leaseSingle(db, 'me')).to.equal(null);
		releaseSingles(db, 'another');
		expect(leaseSingle(db, 'another')!.attempts).to.equal(2);
		const loadId = insertLoad(
			db,
			{ jobId: null, trialId: null, armId: null, conditionId: 'phone', stage: 0, round: 0, warmup: false },
			{ record: recordOf(), frames: [], picture: null }
		);
		expect(finishSingle(db, id, 'me', loadId)).to.equal(false);
		expect(finishSingle(db, id, 'another', loadId)).to.equal(true);
		expect(refusal(() => askForLoad(db, { url: 'http://a.test', conditions: 'tablet' }))).to.match(
			/^422 Unknown conditions/
		);
	});

	it('for a trial’s arm use the trial’s frozen conditions and never count in it', () => {
		const trial = createTrial(db, input({ conditions: ['phone', 'desktop'] }));
		const arm = findTrial(db, trial)!.design.arms[1]!;
		nudgeArm(db, trial, arm.id);
		expect(
			listSingles(db, { trialId: trial }).map((one) => [one.url, one.conditions.id, one.conditions.input, one.armId])
		).to.have.deep.members([
			[arm.url, 'phone', 'nudge', arm.id],
			[arm.url, 'desktop', 'nudge', arm.id]
		]);
		expect(loadsOfTrial(db, trial)).to.deep.equal([]);
	});

	it('come from HAR files too; what is none is refused', () => {
		const har = {
			log: {
				version: '1.2',
				entries: [
					{
						startedDateTime: '2026-11-24T10:00:00Z',
						time: 5,
						request: { method: 'GET', url: 'https://h.test/' },
						response: { status: 200 }
					}
				]
			}
		};
		expect(importHar(db, JSON.stringify(har), null)).to.be.above(0);
		expect(refusal(() => importHar(db, 'hello', null))).to.match(/^422 This is not a HAR file/);
	});
});

describe('migration', () => {
	it('brings a database of the first version forward with all its loads', () => {
		const folder = mkdtempSync(join(tmpdir(), 'zafra-old-'));
		mkdirSync(folder, { recursive: true });
		const old = new Database(join(folder, 'zafra.db'));
		old.exec(readFileSync('src/lib/server/db/migrations/001-first.sql', 'utf8'));
		old.pragma('user_version = 1');
		old.exec(`INSERT INTO trial (id, question, kind, status, rounds, warmups, seed, primary_metrics, conditions, created_at) VALUES (7, 'Old?', 'side-by-side', 'done', 2, 0, 1, '["lcp"]', '${JSON.stringify([BUILT_IN_CONDITIONS[1]])}', '2026-01-01');
			INSERT INTO arm (id, trial_id, position, name, url, is_baseline) VALUES (1, 7, 0, 'A', 'http://a.test/', 1), (2, 7, 1, 'B', 'http://b.test/', 0);
			INSERT INTO job (id, trial_id, arm_id, condition_id, stage, round, warmup, status) VALUES (1, 7, 1, 'desktop', 0, 1, 0, 'done');
			INSERT INTO load (job_id, trial_id, arm_id, condition_id, stage, round, warmup, status, capped, started_at, lab_ms, recipe, record) VALUES (1, 7, 1, 'desktop', 0, 1, 0, 'ok', 0, '2026-01-01', 1, 'zafra-1', x'00')`);
		old.close();
		const db = openDatabase(folder);
		const trial = findTrial(db, 7)!;
		expect(trial).to.include({ question: 'Old?', paused: false, repeatOf: null });
		expect(trial.design.arms).to.have.length(2);
		expect(loadsOfTrial(db, 7)).to.have.length(1);
		expect(db.pragma('foreign_key_check')).to.deep.equal([]);
		expect(db.pragma('foreign_keys', { simple: true })).to.equal(1);
		db.prepare('DELETE FROM trial WHERE id = 7').run();
		expect(loadsOfTrial(db, 7)).to.deep.equal([]);
		db.close();
		rmSync(folder, { recursive: true });
	});
});
