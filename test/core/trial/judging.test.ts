import { expect } from 'chai';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import { judge } from '$core/trial/judge/judge';
import { nextLook } from '$core/trial/design/looks';
import { type TrialDesign } from '$core/trial/types';
import { describeReason } from '$core/wording/reasons';
import { design, load, rounds, looked, lcpOf } from '../../support/trials';

describe('judging', () => {
	it('gives no answer before its first look', () => {
		const judgement = judge(design(), rounds(260));
		expect(judgement.results).to.deep.equal([]);
		expect(judgement.spread.find((item) => item.metric === 'lcp')).to.include({ loads: 20 });
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
		const loads = rounds(260).map((item) =>
			item.round === 3 && item.armId === 2 ? { ...item, excluded: 'a backup ran' } : item
		);
		const judgement = judge(looked(design()), loads);
		expect(lcpOf(judgement)).to.deep.equal(
			lcpOf(
				judge(
					looked(design()),
					loads.map((item) => ({ ...item, excluded: null }))
				)
			)
		);
		expect(judgement.withoutExcluded!.find((item) => item.metric === 'lcp')!.n).to.equal(9);
		expect(judge(looked(design()), rounds(260)).withoutExcluded).to.equal(null);
	});

	it('decides over both devices together: the family is everything', () => {
		const both = looked(design({ conditions: [...BUILT_IN_CONDITIONS] }));
		const loads = rounds(60, 60).flatMap((item) => [
			item,
			{
				...item,
				id: item.id + 10_000,
				conditionId: 'phone',
				figures: { ...item.figures, lcp: 2000 + ((item.armId * item.round) % 7) }
			}
		]);
		const [alone, together] = [
			lcpOf(
				judge(
					looked(design()),
					loads.filter((item) => item.conditionId === 'desktop')
				)
			),
			judge(both, loads).results.find((item) => item.metric === 'lcp' && item.condition === 'desktop')!
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
		const loads = rounds(260).map((item) => ({ ...item, figures: { ...item.figures, fcp: item.figures.lcp } }));
		const fcp = judge(looked(design()), loads).results.find((item) => item.metric === 'fcp')!;
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
			(item) => item.metric === 'score'
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
		expect(results.find((item) => item.metric === 'tbt')).to.include({ verdict: 'worse' });
		expect(results.find((item) => item.metric === 'tbt')!.shift!.relative).to.equal(null);
		expect(results.find((item) => item.metric === 'cls')!.shift!.relative).to.equal(null);
	});
});
