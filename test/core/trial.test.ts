import { expect } from 'chai';
import { describeReason } from '$core/wording/reasons';
import * as v from 'valibot';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions';
import { noFigures, type MetricId } from '$core/metrics/catalogue';
import { NewTrialInput } from '$core/trial/input';
import { judge } from '$core/trial/judge';
import { planLoads } from '$core/trial/plan';
import type { TrialDesign, TrialLoad } from '$core/trial/types';
import { chanceToDecide, decide, fewestRounds, MOST_ROUNDS, roundsToDecide, visibleShift } from '$core/trial/verdict';
import { isShown } from '$core/trial/shown';
import {
	awaitsAddedRounds,
	intervalAlpha,
	isDecided,
	isHopeless,
	isLookDue,
	nextLook,
	plannedSpending,
	reserveSpending,
	roundsOfNextLook,
	stageLook
} from '$core/trial/looks';
import { headlineOf } from '$core/wording/headline';
import { normalFrom, seededRandom } from '$core/stats/random';

const arm = (id: number, name: string, extra = {}) => ({
	id,
	name,
	url: `http://a${id}.test/`,
	baseline: id === 1,
	reference: false,
	...extra
});

function design(extra: Partial<TrialDesign> = {}): TrialDesign {
	return {
		kind: 'side-by-side',
		arms: [arm(1, 'As it is'), arm(2, 'Changed')],
		conditions: [BUILT_IN_CONDITIONS[1]!],
		rounds: 10,
		warmups: 0,
		seed: 7,
		primary: ['lcp', 'wire'],
		...extra
	};
}

let nextId = 1;
function load(
	armId: number,
	round: number,
	figures: Partial<Record<MetricId, number>>,
	extra: Partial<TrialLoad> = {}
): TrialLoad {
	return {
		id: nextId++,
		armId,
		conditionId: 'desktop',
		stage: 0,
		round,
		warmup: false,
		status: 'ok',
		excluded: null,
		figures: { ...noFigures(), ...figures },
		...extra
	};
}

/** Ten rounds with a common drift per round and a shift in the second arm. */
function rounds(shiftMs: number, noise = 15, count = 10): TrialLoad[] {
	const random = seededRandom(99);
	return Array.from({ length: count }, (_, i) => i + 1).flatMap((round) => {
		const drift = 80 * normalFrom(random);
		return [
			load(1, round, { lcp: 2000 + drift + noise * normalFrom(random), wire: 500_000 }),
			load(2, round, { lcp: 2000 + shiftMs + drift + noise * normalFrom(random), wire: 500_000 })
		];
	});
}

/** Judged once, at the end of its plan. */
const looked = (plan: TrialDesign, rounds = plan.rounds): TrialDesign => ({
	...plan,
	looks: [{ rounds, spent: 0.04, by: 'plan', ...(plan.kind === 'before-after' ? { stage: 1 } : {}) }]
});
const lcpOf = (judgement: ReturnType<typeof judge>) => judgement.results.find((result) => result.metric === 'lcp')!;

describe('plan', () => {
	const wide = design({
		arms: [1, 2, 3, 4].map((id) => arm(id, `Arm ${id}`)),
		conditions: [...BUILT_IN_CONDITIONS],
		rounds: 6,
		warmups: 2
	});

	it('loads every arm once per round and conditions, warm-ups first', () => {
		const plan = planLoads(wide);
		expect(plan).to.have.length(4 * 2 * (6 + 2));
		expect(plan.slice(0, 16).every((one) => one.warmup)).to.equal(true);
		for (let round = 1; round <= 6; round++) {
			const here = plan.filter((one) => !one.warmup && one.round === round);
			expect(new Set(here.map((one) => `${one.armId}${one.conditionId}`)).size).to.equal(8);
			const at = here.map((one) => plan.indexOf(one));
			expect(Math.max(...at) - Math.min(...at), 'a round is not torn apart').to.equal(7);
		}
	});

	it('follows from the seed alone, and another seed gives another order', () => {
		expect(planLoads(wide)).to.deep.equal(planLoads(wide));
		expect(planLoads({ ...wide, seed: 8 })).not.to.deep.equal(planLoads(wide));
	});

	it('runs stages one after another, the reference page in each', () => {
		const staged = design({
			kind: 'before-after',
			arms: [arm(1, 'Before'), arm(2, 'After'), arm(3, 'Reference', { reference: true })],
			rounds: 3
		});
		const plan = planLoads(staged);
		expect(plan.map((one) => one.stage)).to.deep.equal([...Array(6).fill(0), ...Array(6).fill(1)]);
		expect(plan.filter((one) => one.armId === 3)).to.have.length(6);
		expect(plan.filter((one) => one.stage === 0 && one.armId === 2)).to.have.length(0);
	});
});

describe('verdict rule', () => {
	const at = (low: number | null, high: number | null, called = true, metric: MetricId = 'lcp') =>
		decide({ metric, shift: { estimate: ((low ?? 0) + (high ?? 0)) / 2, low, high }, margin: 100, called });

	it('gives each of its verdicts', () => {
		expect(at(101, 300)).to.equal('worse');
		expect(at(-300, -101)).to.equal('better');
		expect(at(101, 300, true, 'score')).to.equal('better');
		expect(at(-100, 100)).to.equal('same');
		expect(at(10, 90), 'clear but small').to.equal('same');
		expect(at(60, 300)).to.equal('slight');
		expect(at(-300, -100)).to.equal('slight');
		expect(at(-50, 300)).to.equal('undecided');
		expect(at(101, 300, false), 'not called jointly').to.equal('undecided');
		expect(at(null, null)).to.equal('undecided');
	});

	const open = (estimate: number, spread: number, rounds = 10) => ({
		rounds,
		estimate,
		margin: 100,
		spread,
		testAlpha: 0.02,
		intervalAlpha: 0.015
	});

	it('asks for rounds by the chance of a decision, and always for a number', () => {
		expect(roundsToDecide(open(300, 60))).to.equal(11);
		expect(roundsToDecide(open(0, 60))).to.be.within(11, 20);
		const [calm, noisy] = [roundsToDecide(open(150, 200)), roundsToDecide(open(150, 400))];
		expect(noisy).to.be.above(calm);
		// An estimate at the margin is told a number too: never "no sensible number".
		expect(roundsToDecide(open(100, 120))).to.be.within(11, MOST_ROUNDS);
		expect(roundsToDecide(open(50, 5000))).to.equal(MOST_ROUNDS + 1);
		expect(chanceToDecide(open(150, 200), calm)).to.be.at.least(0.8);
		expect(chanceToDecide(open(150, 200), calm - 1)).to.be.below(0.8);
	});

	it('never asks for fewer rounds than can decide at all, however alike the first ones were', () => {
		// An exact 98.5 % interval needs 2 / 2^n <= 0.015: eight rounds; a test at 0.2 % needs 2^(n-1) >= 500: ten.
		expect(roundsToDecide(open(0, 0, 1))).to.equal(8);
		expect(roundsToDecide({ ...open(400, 0, 1), testAlpha: 0.002 })).to.equal(10);
		expect(chanceToDecide(open(0, 0, 1), 7)).to.equal(0);
	});

	it('reckons that chance as a simulation of the rounds to come does', () => {
		const random = seededRandom(31);
		const [seen, all] = [10, 24];
		for (const [estimate, spread] of [
			[120, 150],
			[0, 150],
			[60, 260]
		] as const) {
			let decided = 0;
			const efficient = 3 / Math.PI;
			for (let i = 0; i < 6000; i++) {
				// The true shift, given what was seen; then the estimate after all rounds.
				const truth = estimate + (spread / Math.sqrt(seen * efficient)) * normalFrom(random);
				const later = truth + (spread / Math.sqrt((all - seen) * efficient)) * normalFrom(random);
				const last = (seen * estimate + (all - seen) * later) / all;
				// Two-sided 2 % and 1.5 %: 2.3263 and 2.4324 (table of the normal distribution).
				const error = spread / Math.sqrt(all * efficient);
				if (Math.abs(last) > 2.4324 * error || Math.abs(last) < 100 - 2.4324 * error) decided++;
			}
			expect(chanceToDecide(open(estimate, spread), all), `${estimate} ± ${spread}`).to.be.closeTo(
				decided / 6000,
				0.02
			);
		}
	});

	it('says what rounds can see, and from how many on they can say anything', () => {
		// (1.95996 + 0.84162) * 100 / sqrt(12 * 0.95493) = 82.76.
		expect(visibleShift(12, 100, 0.05)).to.be.closeTo(82.76, 0.01);
		// One flip in 2^(n-1): 1/16 is more than 4 %, 1/32 is less.
		expect(fewestRounds(0.04)).to.equal(6);
	});
});

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
		expect([adaptive, once, design(), looked(design())].map((one) => roundsOfNextLook(one))).to.deep.equal([
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
		expect(stageLook(plan, 1, 2, 10, 'plan').spent).to.be.closeTo(0.04, 1e-12);
		expect(stageLook(plan, 2, 3, 10, 'plan').spent).to.be.closeTo(0.02, 1e-12);
		const half = stageLook(plan, 1, 2, 5, 'stop');
		expect(half.spent + stageLook({ rounds: 10, looks: [half] }, 1, 2, 10, 'plan').spent).to.be.closeTo(0.04, 1e-12);
	});

	it('have intervals of 95 % when there is one, of 98.5 % when there are several', () => {
		const one = looked(design()).looks!;
		expect(intervalAlpha(design(), one, 0)).to.equal(0.05);
		expect(intervalAlpha(design(), [...one, { rounds: 16, spent: 0.045, by: 'added' }], 1)).to.equal(0.015);
		expect(intervalAlpha(design({ adaptive: true }), one, 0)).to.equal(0.015);
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
		expect([at(1), at(10), at(11), at(1, true)].map((one) => isShown(adaptive, one))).to.deep.equal([
			true,
			true,
			false,
			true
		]);
		expect(isShown({ kind: 'side-by-side' }, at(1))).to.equal(false);
		expect([at(3), at(3, false, 1)].map((one) => isShown({ kind: 'before-after' }, one))).to.deep.equal([true, false]);
	});
});

describe('judging', () => {
	it('gives no answer before its first look', () => {
		const judgement = judge(design(), rounds(260));
		expect(judgement.results).to.deep.equal([]);
		expect(judgement.spread.find((one) => one.metric === 'lcp')).to.include({ loads: 20 });
	});

	it('finds a shift that a drift shared by the rounds would hide', () => {
		const result = lcpOf(judge(looked(design()), rounds(260)));
		expect(result).to.include({ verdict: 'worse', n: 10, primary: true, level: 0.95, decidedAt: 10 });
		expect(result.shift!.estimate).to.be.closeTo(260, 15);
		expect(result.shift!.relative!).to.be.closeTo(0.13, 0.015);
		expect(result.adjustedP).to.be.at.least(result.p!);
	});

	it('a call once made stays, with the interval that it was made on', () => {
		const plan = design({ adaptive: true, rounds: 24, primary: ['lcp'] });
		const first = { ...plan, looks: [nextLook(plan, 10, 'plan')] };
		const loads = rounds(400, 15, 10);
		const called = lcpOf(judge(first, loads));
		expect(called).to.include({ verdict: 'worse', decidedAt: 10, level: 0.985 });
		// From then on the second arm is the quicker one.
		const turned = [
			...loads,
			...[11, 12, 13, 14].flatMap((round) => [load(1, round, { lcp: 9000 }), load(2, round, { lcp: 100 })])
		];
		const later = lcpOf(judge({ ...first, looks: [...first.looks, nextLook(first, 14, 'plan')] }, turned));
		expect(later).to.deep.equal(called);
	});

	it('an excluded load moves nothing: a second reading stands beside', () => {
		const loads = rounds(260).map((one) =>
			one.round === 3 && one.armId === 2 ? { ...one, excluded: 'a backup ran' } : one
		);
		const judgement = judge(looked(design()), loads);
		expect(lcpOf(judgement)).to.deep.equal(
			lcpOf(
				judge(
					looked(design()),
					loads.map((one) => ({ ...one, excluded: null }))
				)
			)
		);
		expect(judgement.withoutExcluded!.find((one) => one.metric === 'lcp')!.n).to.equal(9);
		expect(judge(looked(design()), rounds(260)).withoutExcluded).to.equal(null);
	});

	it('decides over both devices together: the family is everything', () => {
		const both = looked(design({ conditions: [...BUILT_IN_CONDITIONS] }));
		const loads = rounds(60, 60).flatMap((one) => [
			one,
			{
				...one,
				id: one.id + 10_000,
				conditionId: 'phone',
				figures: { ...one.figures, lcp: 2000 + ((one.armId * one.round) % 7) }
			}
		]);
		const [alone, together] = [
			lcpOf(
				judge(
					looked(design()),
					loads.filter((one) => one.conditionId === 'desktop')
				)
			),
			judge(both, loads).results.find((one) => one.metric === 'lcp' && one.condition === 'desktop')!
		];
		expect(together.adjustedP!).to.be.at.least(alone.adjustedP!);
		expect(together.p).to.equal(alone.p);
	});

	it('calls equal pages the same, and bytes that never differ the same', () => {
		const judgement = judge(looked(design()), rounds(0));
		expect(lcpOf(judgement).verdict).to.equal('same');
		expect(judgement.results.find((result) => result.metric === 'wire')).to.include({ verdict: 'same', p: 1 });
	});

	it('gives what it does not decide on an interval and no verdict', () => {
		const loads = rounds(260).map((one) => ({ ...one, figures: { ...one.figures, fcp: one.figures.lcp } }));
		const fcp = judge(looked(design()), loads).results.find((one) => one.metric === 'fcp')!;
		expect(fcp).to.include({ verdict: 'none', primary: false, reason: null });
		expect(fcp.shift!.low).to.be.above(0);
	});

	it('stands beside the target: the good threshold, or the client’s own', () => {
		const target = (extra: Partial<TrialDesign>) => lcpOf(judge(looked(design(extra)), rounds(260))).target;
		expect(target({})).to.deep.equal({ value: 2500, standing: 'both-met' });
		expect(target({ targets: { lcp: 2100 } })).to.deep.equal({ value: 2100, standing: 'crosses' });
		expect(target({ targets: { lcp: 1500 } })).to.deep.equal({ value: 1500, standing: 'both-missed' });
	});

	it('99 against 98 in single loads is no result (common practice)', () => {
		const once = [load(1, 1, { score: 98 }), load(2, 1, { score: 99 })];
		const result = judge(looked(design({ primary: ['score'], rounds: 1 })), once).results.find(
			(one) => one.metric === 'score'
		)!;
		expect(result.verdict).to.equal('undecided');
		expect(result.shift).to.include({ low: null, high: null });
	});

	it('leaves out warm-ups and failed loads, and their round with them; of several tries the good one counts', () => {
		const loads = rounds(260);
		const disturbed = [
			...loads,
			load(1, 11, { lcp: 9 }, { warmup: true }),
			load(2, 11, { lcp: 99_999 }, { warmup: true }),
			load(1, 12, { lcp: 2000 }),
			load(2, 12, {}, { status: 'failed' }),
			load(2, 12, { lcp: 2260 }),
			load(1, 13, { lcp: 2000 }),
			load(2, 13, {}, { status: 'failed' })
		];
		const judgement = judge(looked(design(), 13), disturbed);
		expect(lcpOf(judgement).n).to.equal(11);
		expect(lcpOf(judge(looked(design(), 10), disturbed)).shift).to.deep.equal(
			lcpOf(judge(looked(design()), loads)).shift
		);
		expect(judgement.health.find((entry) => entry.arm === 2)).to.include({ loads: 13, failed: 2, excluded: 0 });
	});

	it('gives no verdict on an arm of which more than a fifth failed', () => {
		const failing = [
			...rounds(260, 15, 8),
			...[9, 10, 11].flatMap((round) => [load(1, round, { lcp: 2000 }), load(2, round, {}, { status: 'failed' })])
		];
		const result = lcpOf(judge(looked(design(), 11), failing));
		expect(result.verdict).to.equal('none');
		expect(describeReason(result.reason!)).to.equal('3 of 11 loads of “Changed” failed.');
		const fifth = [
			...rounds(260, 15, 8),
			...[9, 10].flatMap((round) => [load(1, round, { lcp: 2000 }), load(2, round, {}, { status: 'failed' })])
		];
		expect(lcpOf(judge(looked(design(), 10), fifth)).verdict).to.equal('worse');
	});

	it('has no per cent where zero is about', () => {
		const loads = [1, 2, 3, 4, 5, 6, 7, 8].flatMap((round) => [
			load(1, round, { tbt: 0, cls: 0.01 }),
			load(2, round, { tbt: 200 + round, cls: 0.2 })
		]);
		const results = judge(looked(design({ primary: ['tbt', 'cls'], rounds: 8 })), loads).results;
		expect(results.find((one) => one.metric === 'tbt')).to.include({ verdict: 'worse' });
		expect(results.find((one) => one.metric === 'tbt')!.shift!.relative).to.equal(null);
		expect(results.find((one) => one.metric === 'cls')!.shift!.relative).to.equal(null);
	});

	it('takes the drift between stages out with a reference page', () => {
		const random = seededRandom(4);
		const staged = design({
			kind: 'before-after',
			arms: [arm(1, 'Before'), arm(2, 'After'), arm(3, 'Reference', { reference: true })],
			primary: ['lcp']
		});
		const loads = [0, 1].flatMap((stage) =>
			Array.from({ length: 12 }, (_, i) => i + 1).flatMap((round) => [
				load(stage + 1, round, { lcp: 2000 + stage * 400 + 20 * normalFrom(random) }, { stage }),
				load(3, round, { lcp: 1500 + stage * 400 + 20 * normalFrom(random) }, { stage })
			])
		);
		const result = lcpOf(judge(looked(staged, 12), loads));
		expect(result.rawShift!.estimate).to.be.closeTo(400, 25);
		expect(result.shift!.estimate).to.be.closeTo(0, 25);
		expect(result.verdict).to.equal('same');
	});

	describe('stages with a reference page', () => {
		const staged = looked(
			design({
				kind: 'before-after',
				arms: [arm(1, 'Before'), arm(2, 'After'), arm(3, 'Reference', { reference: true })],
				primary: ['lcp']
			}),
			12
		);
		const stage = (
			rounds: number,
			page: (stage: number, round: number) => number,
			reference: (stage: number, round: number) => number | null = () => 1500
		) =>
			[0, 1].flatMap((one) =>
				Array.from({ length: rounds }, (_, i) => i + 1).flatMap((round) => {
					const calm = reference(one, round);
					return [
						load(one + 1, round, { lcp: page(one, round) }, { stage: one }),
						load(3, round, calm === null ? {} : { lcp: calm }, {
							stage: one,
							...(calm === null ? { status: 'failed' as const } : {})
						})
					];
				})
			);

		it('take the reference’s own figure of the round off, so that shared noise goes', () => {
			const random = seededRandom(8);
			const noise = Array.from({ length: 40 }, () => 300 * normalFrom(random));
			const at = (one: number, round: number) => noise[one * 12 + round]!;
			const result = lcpOf(
				judge(
					staged,
					stage(
						12,
						(one, round) => 2000 + one * 250 + at(one, round),
						(one, round) => 1500 + at(one, round)
					)
				)
			);
			expect(result).to.include({ verdict: 'worse' });
			expect(result.shift!.estimate).to.be.closeTo(250, 1e-6);
			expect(result.referenceCorrelation).to.be.closeTo(1, 1e-9);
			expect(result.rawShift!.high! - result.rawShift!.low!).to.be.above(200);
		});

		it('give no verdict with fewer than four whole rounds, or a reference that failed too often, and say why', () => {
			const few = lcpOf(
				judge(
					{ ...staged, looks: [{ rounds: 3, stage: 1, spent: 0.04, by: 'plan' }] },
					stage(3, (one) => 2000 + one * 900)
				)
			);
			expect(few.verdict).to.equal('none');
			expect(describeReason(few.reason!)).to.equal('“Before” has 3 whole rounds, and at least 4 are needed.');
			const down = lcpOf(
				judge(
					{ ...staged, looks: [{ rounds: 8, stage: 1, spent: 0.04, by: 'plan' }] },
					stage(
						8,
						(one) => 2000 + one * 900,
						(one, round) => (one && round > 1 ? null : 1500)
					)
				)
			);
			expect(down.verdict).to.equal('none');
			expect(describeReason(down.reason!)).to.match(/^7 of 8 loads of the reference page failed in “After”/);
		});
	});

	describe('sweeps', () => {
		const arms = [
			arm(1, 'Without', { page: 'Home', baseline: true }),
			arm(2, 'With', { page: 'Home' }),
			arm(3, 'Without', { page: 'Article', baseline: true }),
			arm(4, 'With', { page: 'Article' })
		];
		const sweep = looked(design({ kind: 'sweep', arms, rounds: 10, primary: ['lcp', 'cls'] }));
		const figures = (armId: number, round: number) =>
			({
				1: { lcp: 1000 + round, cls: 0.1 },
				2: { lcp: 1100 + round * 1.1, cls: 0.15 },
				3: { lcp: 4000 + round, cls: 0.2 },
				4: { lcp: 4800 + round * 1.2, cls: 0.27 }
			})[armId]!;
		const loads = (skip: (armId: number, round: number) => boolean = () => false) =>
			Array.from({ length: 10 }, (_, i) => i + 1).flatMap((round) =>
				[1, 2, 3, 4].filter((id) => !skip(id, round)).map((id) => load(id, round, figures(id, round)))
			);
		const pooled = (all: TrialLoad[], metric: MetricId) =>
			judge(sweep, all).results.find((one) => one.metric === metric && one.arm === 0)!;

		it('pool times as shares of each page’s own figure, and the rest in its unit', () => {
			// Pages are 10 % and 20 % slower: together 15 %.
			const lcp = pooled(loads(), 'lcp');
			expect(lcp).to.include({ scale: 'share', verdict: 'worse' });
			expect(lcp.shift!.estimate).to.be.closeTo(0.15, 0.001);
			const cls = pooled(loads(), 'cls');
			expect(cls).to.include({ scale: 'unit', verdict: 'worse' });
			expect(cls.shift!.estimate).to.be.closeTo(0.06, 1e-9);
		});

		it('keep a round in which one page failed for the others', () => {
			const some = pooled(
				loads((id, round) => id === 2 && round <= 5),
				'lcp'
			);
			expect(some.n).to.equal(10);
			expect(some.verdict).to.equal('worse');
		});
	});

	it('says the answer in one line for each of the conditions', () => {
		const lines = headlineOf(design(), judge(looked(design()), rounds(260)));
		expect(lines[0]).to.include({ tone: 'worse' });
		expect(lines[0]!.text).to.equal('“Changed” is slower (largest paint) than “As it is”.');
		expect(headlineOf(design(), judge(design(), []))[0]).to.include({ tone: 'none' });
	});
});

describe('the door for a new trial', () => {
	const good = {
		question: 'Does it?',
		kind: 'side-by-side',
		arms: [
			{ name: 'A', url: 'http://a.test/' },
			{ name: 'B', url: 'https://b.test/x' }
		],
		conditions: ['phone'],
		rounds: 10,
		warmups: 1
	};
	const issues = (change: object) => {
		const result = v.safeParse(NewTrialInput, { ...good, ...change });
		return result.success ? [] : result.issues.map((issue) => `${v.getDotPath(issue)}: ${issue.message}`);
	};

	it('lets a good one in', () => expect(issues({})).to.deep.equal([]));

	it('says where and what is wrong with each bad one', () => {
		expect(issues({ question: '  ' })[0]).to.match(/^question: Write the question/);
		expect(issues({ arms: good.arms.slice(0, 1) })[0]).to.match(/^arms: .*at least two/);
		expect(issues({ arms: [good.arms[0], { name: 'B', url: 'ftp://b.test' }] })[0]).to.match(/^arms\.1\.url: .*http/);
		expect(issues({ arms: [good.arms[0], { name: 'B', url: 'not an address' }] })[0]).to.match(/^arms\.1\.url/);
		expect(issues({ arms: [good.arms[0], { name: 'a', url: 'http://b.test' }] })[0]).to.match(/name of its own/);
		for (const rounds of [0, 500, 2.5, NaN, '10']) expect(issues({ rounds })[0]).to.match(/^rounds: .*from 1 to 100/);
		expect(issues({ conditions: [] })[0]).to.match(/^conditions: /);
		expect(issues({ primary: ['fid'] })[0]).to.match(/no such metric/);
	});
});
