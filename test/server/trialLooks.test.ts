import { expect } from 'chai';
import { excludeLoad } from '../../src/lib/server/rooms/loads/commands';
import { messageOf, trialAnswer } from '../../src/lib/server/rooms/trials/answer';
import { doneTrials } from '../../src/lib/server/rooms/reports/view';
import { addRounds, startTrial, stopTrial } from '../../src/lib/server/rooms/trials/commands';
import {
	deriveJudgement,
	findJudgement,
	judgementForPage,
	judgementOf
} from '../../src/lib/server/rooms/trials/judgement';
import { retrySlot } from '../../src/lib/server/rooms/trials/slots';
import { disturbedLoad, FAILED, refusal, useQueue } from '../support/queue';

describe('answers of trials', () => {
	const q = useQueue();

	it('go on when a site is down for a while: failures are counted, and too many leave no verdict', () => {
		const id = q.now.make({ rounds: 10, primary: ['lcp'] });
		const baseline = q.now.trial(id).design.arms[0]!.id;
		for (let job = q.now.lease(); job; job = q.now.lease()) {
			const down = job.armId !== baseline && job.round > 6;
			q.now.finish(job, down ? { ...FAILED, figures: { lcp: null } } : { figures: { lcp: 2000 + job.round } });
		}
		const judgement = judgementOf(q.now.db, q.now.trial(id));
		expect(q.now.trial(id).status).to.equal('done');
		expect(judgement.health.find((item) => item.arm !== baseline)).to.include({ loads: 18, failed: 12 });
		expect(judgement.results.find((result) => result.metric === 'lcp')).to.deep.include({
			verdict: 'none',
			reason: { code: 'failures', failed: 12, loads: 18, arm: 'B' }
		});
	});

	it('that are adaptive stop at the look at which all is decided', () => {
		const id = q.now.make({ adaptive: true, primary: ['lcp'] });
		expect(q.now.trial(id).design.rounds).to.equal(24);
		const done = q.now.runAll((job) => ({
			lcp: (q.now.trial(id).design.arms[0]!.id === job.armId ? 2000 : 3000) + job.round
		}));
		expect(done).to.have.length(20);
		expect(q.now.trial(id)).to.include({ status: 'done' });
		const judgement = judgementOf(q.now.db, q.now.trial(id));
		expect(judgement.looks.map((look) => [look.rounds, look.by])).to.deep.equal([[10, 'plan']]);
		expect(judgement.results.find((result) => result.metric === 'lcp')!.verdict).to.equal('worse');
	});

	it('that are adaptive and undecided go on to their end', () => {
		const id = q.now.make({ adaptive: true, primary: ['lcp'] });
		const baseline = q.now.trial(id).design.arms[0]!.id;
		// Two rounds of five the other way: open, with hope.
		const differences = [210, 240, -80, -10, 100];
		expect(
			q.now.runAll((job) => ({ lcp: 2000 + (job.armId === baseline ? 0 : differences[job.round % 5]!) + job.round }))
		).to.have.length(48);
		const trial = q.now.trial(id);
		expect(trial.status).to.equal('done');
		expect(trial.design.looks!.map((look) => look.rounds)).to.deep.equal([10, 14, 18, 24]);
		expect(trial.design.looks!.at(-1)!.spent).to.be.closeTo(0.04, 1e-12);
	});

	it('that are adaptive end when nothing open has hope, and may get rounds added', () => {
		const id = q.now.make({ adaptive: true, primary: ['lcp'] });
		const done = q.now.runAll((job) => ({ lcp: 2000 + 2500 * ((job.round * 7 + job.armId * 3) % 5) }));
		expect(done.length).to.be.below(48);
		expect(q.now.trial(id).status).to.equal('done');
		const reached = done.length / 2;
		addRounds(q.now.db, id, 2);
		q.now.runAll((job) => ({ lcp: 2000 + job.round }));
		const { looks } = q.now.trial(id).design;
		expect(looks!.at(-1)).to.include({ rounds: reached + 2, by: 'added' });
	});

	it('stopped among added rounds keep their answer, and may get rounds added again', () => {
		const id = q.now.make({ rounds: 3 });
		q.now.runAll();
		addRounds(q.now.db, id, 4);
		for (let i = 0; i < 3; i++) q.now.finish(q.now.lease()!);
		stopTrial(q.now.db, id);
		const stopped = q.now.trial(id);
		expect(stopped.status).to.equal('done');
		expect(stopped.design.looks!.map(({ rounds, by }) => [rounds, by])).to.deep.equal([
			[3, 'plan'],
			[4, 'stop']
		]);
		expect(doneTrials(q.now.db, null).map((item) => item.id)).to.include(id);
		addRounds(q.now.db, id, 2);
		expect(q.now.runAll().every(({ round }) => round <= 6)).to.equal(true);
		addRounds(q.now.db, id, 3);
		q.now.runAll();
		expect(Math.max(...q.now.loads(id).map(({ round }) => round))).to.equal(9);
	});

	it('stopped before their plan is over can be reported once they have an answer', () => {
		const id = q.now.make({ rounds: 6 });
		for (let i = 0; i < 5; i++) q.now.finish(q.now.lease()!);
		stopTrial(q.now.db, id);
		expect(q.now.trial(id)).to.include({ status: 'stopped' });
		expect(doneTrials(q.now.db, null).map((item) => item.id)).to.include(id);
	});

	it('get rounds added as a further look that draws on the reserve; the first loads stay', () => {
		const id = q.now.make({ rounds: 3 });
		expect(refusal(() => addRounds(q.now.db, id, 2))).to.match(/^409 .*once the trial is done/);
		q.now.runAll();
		expect(refusal(() => addRounds(q.now.db, id, 0))).to.match(/^422/);
		addRounds(q.now.db, id, 2);
		const more = q.now.runAll();
		expect(more.map((job) => job.round).sort()).to.deep.equal([4, 4, 5, 5]);
		const trial = q.now.trial(id);
		expect(trial).to.include({ status: 'done' });
		expect(trial.design).to.include({ rounds: 5, added: 1 });
		expect(trial.design.looks!.map((look) => [look.rounds, Number(look.spent.toFixed(6)), look.by])).to.deep.equal([
			[3, 0.04, 'plan'],
			[5, 0.045, 'added']
		]);
	});

	it('tell the API nothing between looks but progress, spread and when the next look is', async () => {
		const id = q.now.make({ rounds: 4, primary: ['lcp'], targets: { lcp: 1800 } });
		for (let i = 0; i < 6; i++) q.now.finish(q.now.lease()!, { figures: { lcp: 2000 + i } });
		const before = await trialAnswer(q.now.db, q.now.trial(id));
		expect(before).to.deep.include({ results: [], looks: [], nextLook: 4, withoutExcluded: null, recipe: 'zafra-2' });
		expect(before.spread.map((item) => [item.metric, item.loads])).to.deep.equal([['lcp', 6]]);
		q.now.runAll(() => ({ lcp: 2000 }));
		const after = await trialAnswer(q.now.db, q.now.trial(id));
		expect(after).to.deep.include({ nextLook: null, looks: [{ rounds: 4, spent: 0.04, by: 'plan' }] });
		expect(after.results.find((result) => result.metric === 'lcp')!.target).to.deep.equal({
			value: 1800,
			standing: 'both-missed'
		});
	});

	it('stopped are looked at with what the rounds so far have earned, and the rest when they go on', () => {
		const id = q.now.make({ rounds: 8, primary: ['lcp'] });
		// Two whole rounds and half of a third: only whole ones are looked at.
		for (let i = 0; i < 5; i++) q.now.finish(q.now.lease()!);
		expect(judgementOf(q.now.db, q.now.trial(id)).results).to.deep.equal([]);
		stopTrial(q.now.db, id);
		const [look] = q.now.trial(id).design.looks!;
		expect(look).to.include({ rounds: 2, by: 'stop' });
		expect(look!.spent).to.be.closeTo(0.04 * 0.25 ** 1.5, 1e-12);
		startTrial(q.now.db, id);
		q.now.runAll();
		expect(q.now.trial(id).design.looks!.map((item) => [item.rounds, item.by])).to.deep.equal([
			[2, 'stop'],
			[8, 'plan']
		]);
	});

	it('load a failed load again at the end of its round, at most twice more, and not an arm that is down', () => {
		const id = q.now.make({ rounds: 2 });
		const order: string[] = [];
		let failures = 0;
		for (let job = q.now.lease(); job; job = q.now.lease()) {
			const fails = job.round === 1 && failures < 3;
			order.push(`${job.round}.${job.armId}.${job.retry}${fails ? ' failed' : ''}`);
			if (fails) {
				failures++;
				q.now.finish(job, FAILED);
			} else q.now.finish(job);
		}
		const [a, b] = q.now
			.trial(id)
			.design.arms.map((arm) => arm.id)
			.sort((x, y) => (order[0]!.includes(`1.${x}.`) ? -1 : 1) - (order[0]!.includes(`1.${y}.`) ? -1 : 1));
		expect(order.slice(0, 5)).to.deep.equal([
			`1.${a}.0 failed`,
			`1.${b}.0 failed`,
			`1.${a}.1 failed`,
			`1.${b}.1`,
			`1.${a}.2`
		]);
		expect(order.slice(5).every((name) => name.startsWith('2.'))).to.equal(true);
		const trial = q.now.trial(id);
		expect(trial.status).to.equal('done');
		expect(trial.design.looks!.map((look) => look.rounds)).to.deep.equal([2]);
		const third = { trialId: id, armId: a!, conditionId: 'desktop', stage: 0, round: 1, warmup: false, retry: 2 };
		expect(retrySlot(q.now.db, third)).to.equal(false);
	});

	it('make a disturbed load again in its round, at most twice, and count the calm one', () => {
		const id = q.now.make({ rounds: 4, primary: ['lcp'] });
		let disturbed = 0;
		for (let job = q.now.lease(); job; job = q.now.lease()) {
			const isFirst = job.round === 1 && disturbed++ < 1;
			q.now.finish(job, isFirst ? disturbedLoad({ lcp: 9000 }) : { figures: { lcp: 2000 } });
		}
		const loads = q.now.loads(id);
		expect(loads).to.have.length(9);
		expect(loads.filter((load) => load.disturbed).map((load) => load.round)).to.deep.equal([1]);
		expect(q.now.trial(id).design.countsDisturbed).to.equal(undefined);
		const [lcp] = judgementOf(q.now.db, q.now.trial(id)).results.filter((result) => result.metric === 'lcp');
		expect(lcp).to.include({ n: 4, baselineMedian: 2000, armMedian: 2000 });
	});

	it('never take a place of the plan from a load that stays disturbed: the round goes without it', () => {
		const id = q.now.make({ rounds: 7, primary: ['lcp'] });
		for (let job = q.now.lease(); job; job = q.now.lease())
			q.now.finish(job, job.round === 3 && job.armId === q.now.trial(id).design.arms[0]!.id ? disturbedLoad() : {});
		expect(q.now.loads(id).filter((load) => load.disturbed)).to.have.length(3);
		const [lcp] = judgementOf(q.now.db, q.now.trial(id)).results.filter((result) => result.metric === 'lcp');
		expect(lcp).to.include({ n: 6, reason: null });
		expect(q.now.trial(id).status).to.equal('done');
	});

	it('go on with disturbed loads counted once a third of the places was disturbed twice', () => {
		const id = q.now.make({ rounds: 6, primary: ['lcp'] });
		let made = 0;
		for (let job = q.now.lease(); job; job = q.now.lease(), made++) q.now.finish(job, disturbedLoad({ lcp: 3000 }));
		const trial = q.now.trial(id);
		expect(trial.design.countsDisturbed).to.equal(true);
		// The first rounds were tried again, the rest was not.
		expect(made).to.be.within(13, 12 + 2 * 6);
		const [lcp] = judgementOf(q.now.db, trial).results.filter((result) => result.metric === 'lcp');
		expect(lcp).to.include({ n: 6, baselineMedian: 3000 });
	});

	it('leave loads out with a reason and count them again', () => {
		const id = q.now.make({ rounds: 3, primary: ['lcp'] });
		q.now.runAll();
		const [load] = q.now.loads(id);
		expect(refusal(() => excludeLoad(q.now.db, load!.id, '  '))).to.match(/^422 Say why/);
		excludeLoad(q.now.db, load!.id, 'The server was restarted');
		const lcp = (of: 'results' | 'withoutExcluded') =>
			judgementOf(q.now.db, q.now.trial(id))[of]?.find((result) => result.metric === 'lcp')?.n;
		expect([lcp('results'), lcp('withoutExcluded')]).to.deep.equal([3, 2]);
		expect(q.now.loads(id)[0]!.excluded).to.equal('The server was restarted');
		excludeLoad(q.now.db, load!.id, null);
		expect([lcp('results'), lcp('withoutExcluded')]).to.deep.equal([3, undefined]);
		expect(refusal(() => excludeLoad(q.now.db, 999, 'x'))).to.match(/^404/);
	});

	it('are judged when they change, as a job of the queue that is done between two loads', async () => {
		const id = q.now.make({ rounds: 3 });
		const waiting = () =>
			q.now.value<number>(`SELECT count(*) FROM job WHERE kind = 'derive' AND "order" = '"judgement"'`);
		q.now.finish(q.now.lease()!);
		expect(waiting()).to.equal(1);
		q.now.runAll();
		const judgement = await judgementForPage(q.now.db, q.now.trial(id), q.now.loads(id));
		expect(judgement.results.length).to.be.above(0);
		const stored = () => findJudgement(q.now.db, id)!.isOld;
		expect(stored()).to.equal(false);
		excludeLoad(q.now.db, q.now.loads(id)[0]!.id, 'a backup ran');
		expect([stored(), waiting()]).to.deep.equal([true, 1]);
		deriveJudgement(q.now.db, id);
		expect(stored()).to.equal(false);
	});

	it('fail when not one load succeeded, say why, and are not started again', () => {
		const id = q.now.make({ rounds: 1 });
		for (let slot = q.now.lease(); slot; slot = q.now.lease()) q.now.finish(slot, FAILED);
		expect(q.now.trial(id)).to.include({ status: 'failed', reason: 'no-load-succeeded' });
		expect(messageOf(q.now.db, q.now.trial(id))).to.match(/^Not one load succeeded/);
		expect(refusal(() => startTrial(q.now.db, id))).to.match(/^409 .*Repeat it/);
	});
});
