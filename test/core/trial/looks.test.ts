import { expect } from 'chai';
import {
	awaitsAddedRounds,
	boundsOf,
	intervalAlpha,
	isDecided,
	isHopeless,
	isLookDue,
	nextLook,
	plannedSpending,
	reserveSpending,
	roundsOfNextLook,
	equalShare,
	stageBoundsOf,
	stageLook
} from '$core/trial/design/looks';
import { isShown } from '$core/trial/judge/shown';
import { design, looked } from '../../support/trials';

describe('looks', () => {
	it('spend 4 % by the plan and never more than the last per cent beyond it', () => {
		expect([10, 14, 18, 24].map((n) => plannedSpending(n, 24).toFixed(4))).to.deep.equal([
			'0.0108',
			'0.0178',
			'0.0260',
			'0.0400'
		]);
		expect([1, 2, 3].map((n) => reserveSpending(n))).to.deep.equal([0.005, 0.0075, 0.00875]);
		expect(plannedSpending(24, 24) + reserveSpending(1000)).to.be.at.most(0.05);
	});

	it('are due after 10, 14, 18 and 24 rounds of an adaptive trial, each once', () => {
		const adaptive = design({ adaptive: true, rounds: 24 });
		expect([9, 10, 11, 14, 18, 24].map((n) => isLookDue(adaptive, n))).to.deep.equal([
			false,
			true,
			false,
			true,
			true,
			true
		]);
		const once = { ...adaptive, looks: [nextLook(adaptive, 10, 'plan')] };
		expect([isLookDue(once, 10), isLookDue(once, 14), isLookDue({ ...once, added: 1 }, 14)]).to.deep.equal([
			false,
			true,
			false
		]);
		expect([adaptive, once, design(), looked(design())].map((item) => roundsOfNextLook(item))).to.deep.equal([
			10,
			14,
			10,
			null
		]);
		expect(isLookDue(design(), 10)).to.equal(false);
	});

	it('earn what the rounds so far are worth when the analyst stops', () => {
		const stopped = nextLook(design({ rounds: 24 }), 6, 'stop');
		expect(stopped).to.deep.include({ rounds: 6, by: 'stop' });
		expect(stopped.spent).to.be.closeTo(0.04 * 0.125, 1e-12);
		const later = nextLook({ ...design({ rounds: 24 }), looks: [stopped] }, 24, 'plan');
		expect(later.spent).to.be.closeTo(0.04, 1e-12);
	});

	it('meet a bound at every round from the sixth on where the analyst stops, and keep their own where the plan looks', () => {
		const plan = design({ rounds: 12 });
		const stop = nextLook(plan, 9, 'stop');
		const met = boundsOf(plan, [stop], 0);
		expect(met.map(({ rounds }) => rounds)).to.deep.equal([6, 7, 8, 9]);
		expect(met.at(-1)!.spent).to.be.closeTo(stop.spent, 1e-12);
		expect(met.every(({ spent }, i) => i === 0 || spent > met[i - 1]!.spent)).to.equal(true);
		const end = nextLook({ ...plan, looks: [stop] }, 12, 'plan');
		expect(boundsOf(plan, [stop, end], 1)).to.deep.equal([{ rounds: 12, spent: 0.04 }]);
		// Where shares are small it is no wider interval that makes up for a stop: what was spent by it is spent.
		const best = boundsOf({ ...plan, aim: 'best' }, [stop, end], 1);
		expect(best.map(({ rounds }) => rounds)).to.deep.equal([...met.map(({ rounds }) => rounds), 12]);
		expect(boundsOf({ ...plan, aim: 'best' }, [end], 0)).to.deep.equal([{ rounds: 12, spent: 0.04 }]);
		const stages = [
			stageLook({ rounds: 10 }, { stage: 1, share: 0.01, rounds: 6, by: 'stop' }),
			stageLook({ rounds: 10 }, { stage: 1, share: 0.01, rounds: 10, by: 'plan' })
		];
		const log = stageBoundsOf({ rounds: 10, plannedSteps: 4 }, 0.01, stages, 1);
		expect(log.map(({ rounds }) => rounds)).to.deep.equal([4, 5, 6, 10]);
		expect(log.at(-1)!.spent).to.be.closeTo(0.01, 1e-12);
		expect(stageBoundsOf({ rounds: 10 }, 0.01, stages, 1).map(({ rounds }) => rounds)).to.deep.equal([10]);
		const stage = stageLook({ rounds: 10 }, { stage: 1, share: equalShare(2), rounds: 6, by: 'stop' });
		expect(stageBoundsOf({ rounds: 10 }, equalShare(2), [stage], 0).map(({ rounds }) => rounds)).to.deep.equal([
			4, 5, 6
		]);
	});

	it('after added rounds draw on the reserve, whatever the plan was', () => {
		const done = { ...looked(design({ rounds: 12 })), rounds: 18, added: 1 };
		expect(awaitsAddedRounds(done)).to.equal(true);
		const look = nextLook(done, 18, 'added');
		expect(look.spent).to.be.closeTo(0.045, 1e-12);
		const next = { ...done, looks: [...done.looks!, look], rounds: 24, added: 2 };
		expect(nextLook(next, 24, 'added').spent).to.be.closeTo(0.0475, 1e-12);
		expect(awaitsAddedRounds({ ...next, added: 1 })).to.equal(false);
	});

	it('of stages share the plan: each comparison spends its part once', () => {
		const plan = { rounds: 10, looks: [] };
		expect(stageLook(plan, { stage: 1, share: equalShare(2), rounds: 10, by: 'plan' }).spent).to.be.closeTo(
			0.04,
			1e-12
		);
		expect(stageLook(plan, { stage: 2, share: equalShare(3), rounds: 10, by: 'plan' }).spent).to.be.closeTo(
			0.02,
			1e-12
		);
		const half = stageLook(plan, { stage: 1, share: equalShare(2), rounds: 5, by: 'stop' });
		expect(half.spent).to.be.closeTo(0.04 * 0.5 ** 1.5, 1e-12);
		expect(
			stageLook({ rounds: 10, looks: [half] }, { stage: 1, share: equalShare(2), rounds: 10, by: 'plan' }).spent
		).to.be.closeTo(0.04, 1e-12);
	});

	it('have intervals of 95 % when there is one, of 98.5 % when there are several', () => {
		const item = looked(design()).looks!;
		expect(intervalAlpha(design(), item, 0)).to.equal(0.05);
		expect(intervalAlpha(design(), [...item, { rounds: 16, spent: 0.045, by: 'added' }], 1)).to.equal(0.015);
		expect(intervalAlpha(design({ adaptive: true }), item, 0)).to.equal(0.015);
	});

	const judged = (verdicts: string[], more: object = {}, rounds = 14) =>
		({
			looks: [{ rounds, spent: 0.01, by: 'plan' }],
			results: verdicts.map((verdict) => ({ primary: true, verdict, reason: null, hope: 0.1, ...more }))
		}) as never;

	it('know when all is decided', () => {
		expect(isDecided(judged(['better', 'same', 'slight']))).to.equal(true);
		expect(isDecided(judged(['better', 'undecided']))).to.equal(false);
		expect(isDecided(judged(['none']))).to.equal(false);
		expect(isDecided(judged(['none'], { reason: { code: 'few-pages' } }))).to.equal(true);
		expect(isDecided(judged([]))).to.equal(false);
	});

	it('know when nothing open has hope, from 14 rounds on', () => {
		expect(isHopeless(judged(['undecided', 'same']))).to.equal(true);
		expect(isHopeless(judged(['undecided'], {}, 10))).to.equal(false);
		expect(isHopeless(judged(['undecided'], { hope: 0.2 }))).to.equal(false);
		expect(isHopeless(judged(['same']))).to.equal(false);
	});

	it('are the only moments at which figures stand beside each other', () => {
		const adaptive = { kind: 'side-by-side' as const, looks: [{ rounds: 10, spent: 0.01, by: 'plan' as const }] };
		const at = (round: number, warmup = false, stage = 0) => ({ round, warmup, stage });
		expect([at(1), at(10), at(11), at(1, true)].map((item) => isShown(adaptive, item))).to.deep.equal([
			true,
			true,
			false,
			true
		]);
		expect(isShown({ kind: 'side-by-side' }, at(1))).to.equal(false);
		expect([at(3), at(3, false, 1)].map((item) => isShown({ kind: 'before-after' }, item))).to.deep.equal([
			true,
			false
		]);
	});
});
