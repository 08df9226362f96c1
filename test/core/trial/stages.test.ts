import { expect } from 'chai';
import { type MetricId } from '$core/metrics/catalogue';
import { normalFrom, seededRandom } from '$core/stats/random';
import { judge } from '$core/trial/judge/judge';
import { isUnlike } from '$core/trial/judge/referenceWeight';
import { type TrialLoad } from '$core/trial/types';
import { describeReason } from '$core/wording/reasons';
import { arm, design, load, looked, lcpOf } from '../../support/trials';

describe('judging stages', () => {
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
				load(3, round, { lcp: 2000 + stage * 400 + 20 * normalFrom(random) }, { stage })
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
			[0, 1].flatMap((value) =>
				Array.from({ length: rounds }, (_, i) => i + 1).flatMap((round) => {
					const calm = reference(value, round);
					return [
						load(value + 1, round, { lcp: page(value, round) }, { stage: value }),
						load(3, round, calm === null ? {} : { lcp: calm }, {
							stage: value,
							...(calm === null ? { status: 'failed' as const } : {})
						})
					];
				})
			);

		it('take the reference’s own figure of the round off, so that shared noise goes', () => {
			const random = seededRandom(8);
			const noise = Array.from({ length: 40 }, () => 300 * normalFrom(random));
			const at = (value: number, round: number) => noise[value * 12 + round]!;
			const result = lcpOf(
				judge(
					staged,
					stage(
						12,
						(value, round) => 2000 + value * 250 + at(value, round),
						(value, round) => 2000 + at(value, round)
					)
				)
			);
			expect(result).to.include({ verdict: 'worse' });
			// Added or in proportion: 250 ms, or 2,000 times 250 of a reference of 2,000 give and take 300.
			expect(result.shift!.estimate).to.be.closeTo(250, 25);
			expect(result.shift!.low!).to.be.above(150);
			expect(result.referenceCorrelation).to.be.closeTo(1, 1e-9);
			expect(result.rawShift!.high! - result.rawShift!.low!).to.be.above(200);
		});

		it('give no verdict with fewer than four whole rounds, or a reference that failed too often, and say why', () => {
			const few = lcpOf(
				judge(
					{ ...staged, looks: [{ rounds: 3, stage: 1, spent: 0.04, by: 'plan' }] },
					stage(3, (value) => 2000 + value * 900)
				)
			);
			expect(few.verdict).to.equal('none');
			expect(describeReason(few.reason!)).to.equal('“Before” has 3 whole rounds, and at least 4 are needed.');
			const down = lcpOf(
				judge(
					{ ...staged, looks: [{ rounds: 8, stage: 1, spent: 0.04, by: 'plan' }] },
					stage(
						8,
						(value) => 2000 + value * 900,
						(value, round) => (value && round > 1 ? null : 1500)
					)
				)
			);
			expect(down.verdict).to.equal('none');
			expect(describeReason(down.reason!)).to.match(/^7 of 8 loads of the reference page failed in “After”/);
		});
	});

	it('gives times and score no verdict where nothing shows the drift, and judges bytes all the same', () => {
		const bare = looked(design({ kind: 'before-after', primary: ['score', 'lcp', 'wire'] }), 10);
		const loads = [0, 1].flatMap((stage) =>
			Array.from({ length: 10 }, (_, i) =>
				load(
					stage + 1,
					i + 1,
					{ score: 80 - 20 * stage, lcp: 2000 + 900 * stage, wire: 500_000 + 90_000 * stage },
					{ stage }
				)
			)
		);
		const of = (metric: MetricId, staged = bare) =>
			judge(staged, loads).results.find((item) => item.metric === metric)!;
		for (const metric of ['score', 'lcp'] as const) {
			expect(of(metric).verdict).to.equal('none');
			expect(describeReason(of(metric).reason!)).to.match(/^Not judged: nothing shows how much the world drifted/);
		}
		expect(of('wire').verdict).to.equal('worse');
		// A last stage in which the change is taken back shows it, too.
		expect(of('lcp', { ...bare, returnStage: 2 }).verdict).to.equal('worse');
	});

	it('lets the weaker verdict of both ideas of drift stand', () => {
		// All is a tenth slower: 250 ms of a page of 2.5 s, 80 ms of a reference of 0.8 s.
		const staged = looked(
			design({
				kind: 'before-after',
				arms: [arm(1, 'Before'), arm(2, 'After'), arm(3, 'Reference', { reference: true })],
				primary: ['lcp']
			}),
			12
		);
		const random = seededRandom(5);
		const loads = [0, 1].flatMap((stage) =>
			Array.from({ length: 12 }, (_, i) => i + 1).flatMap((round) => [
				load(stage + 1, round, { lcp: 2500 * (1 + 0.1 * stage) + 20 * normalFrom(random) }, { stage }),
				load(3, round, { lcp: 800 * (1 + 0.1 * stage) + 6 * normalFrom(random) }, { stage })
			])
		);
		const { verdict, shift } = lcpOf(judge(staged, loads));
		expect(verdict).to.equal('undecided');
		// As an addition 170 ms more, in proportion nothing: the interval holds both.
		expect(shift!.low!).to.be.below(0);
		expect(shift!.high!).to.be.above(150);
	});

	it('ask for a reference about as heavy as the page: between half and twice', () => {
		expect([1200, 1250, 2500, 5000, 5100].map((reference) => isUnlike(2500, reference))).to.deep.equal([
			true,
			false,
			false,
			false,
			true
		]);
		expect(isUnlike(0, 800)).to.equal(false);
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
			judge(sweep, all).results.find((item) => item.metric === metric && item.arm === 0)!;

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
});
