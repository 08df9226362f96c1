/** A log of steps: what each is compared with, what it may spend, and what is said of a step that was taken back. */
import { expect } from 'chai';
import * as v from 'valibot';
import { NewTrialInput } from '$core/trial/design/input';
import {
	awaitsReturn,
	explainedPairs,
	fewestStepRounds,
	stepComparisons,
	stepShare,
	usefulStepRounds
} from '$core/trial/design/log';
import { stageLook } from '$core/trial/design/looks';
import { judge } from '$core/trial/judge/judge';
import { normalFrom, seededRandom } from '$core/stats/random';
import type { TrialArm, TrialDesign, TrialLoad } from '$core/trial/types';
import { wordRange, wordSpan } from '$core/wording/range';
import { wordReturned } from '$core/wording/steps';
import { arm, design, load } from '../../support/trials';

const step = (id: number, name: string, extra: Partial<TrialArm> = {}): TrialArm => ({ ...arm(id, name), ...extra });
const REFERENCE = step(9, 'Reference page', { reference: true });

function log(steps: TrialArm[], extra: Partial<TrialDesign> = {}): TrialDesign {
	const plan = design({
		kind: 'before-after',
		plannedSteps: 4,
		rounds: 8,
		arms: [step(1, 'As it was'), REFERENCE, ...steps],
		...extra
	});
	return steps.reduce<TrialDesign>((now, _, i) => {
		const share = stepShare(now, { stage: i + 1, against: 'both' });
		return {
			...now,
			looks: [...(now.looks ?? []), stageLook(now, { stage: i + 1, share, rounds: plan.rounds, by: 'plan' })]
		};
	}, plan);
}

/** Each stage with its own middle figure; the machine is slower by a tenth from the third stage on. */
function loadsOf(plan: TrialDesign, middles: readonly number[]): TrialLoad[] {
	const random = seededRandom(12);
	const stages = plan.arms.filter(({ reference }) => !reference);
	return stages.flatMap(({ id }, stage) =>
		Array.from({ length: plan.rounds }, (_, i) => i + 1).flatMap((round) => {
			const slower = stage >= 2 ? 1.1 : 1;
			const figure = (middle: number) => slower * middle * (1 + 0.01 * normalFrom(random));
			return [
				load(id, round, { lcp: figure(middles[stage]!), wire: 500_000 }, { stage }),
				load(REFERENCE.id, round, { lcp: figure(1000), wire: 80_000 }, { stage })
			];
		})
	);
}

const sides = (plan: TrialDesign) =>
	stepComparisons(plan).map(({ baseline, arm: own, against }) => `${own.name} ${against} ${baseline.name}`);

describe('a log of steps', () => {
	it('holds each step against the one before and against the start, the first once', () => {
		expect(sides(log([step(2, 'Larder'), step(3, 'Joined')]))).to.deep.equal([
			'Larder both As it was',
			'Joined previous Larder',
			'Joined start As it was'
		]);
	});

	it('holds a step that takes one back against the stage to which the page should return', () => {
		const plan = log([
			step(2, 'Larder'),
			step(3, 'Joined', { decision: 'taken-back' }),
			step(4, 'Without', { undoes: 3 }),
			step(5, 'Pictures')
		]);
		expect(sides(plan).slice(3)).to.deep.equal([
			'Without previous Larder',
			'Without start As it was',
			'Pictures previous Without',
			'Pictures start As it was'
		]);
		expect(explainedPairs(plan).map(({ baseline }) => baseline.name)).to.deep.equal([
			'As it was',
			'Larder',
			'Larder',
			'Without'
		]);
		expect(sides(log([step(2, 'Larder'), step(3, 'Without', { undoes: 2 })])).at(-1)).to.equal(
			'Without both As it was'
		);
	});

	it('asks to be measured again once its last step was taken back', () => {
		expect(awaitsReturn(log([step(2, 'Larder', { decision: 'taken-back' })]))?.name).to.equal('Larder');
		expect(awaitsReturn(log([step(2, 'Larder', { decision: 'kept' })]))).to.equal(null);
	});

	for (const planned of [1, 4, 12])
		it(`spends 4 % over ${planned} planned steps, and at most 1 % over all that come later`, () => {
			const all = (from: number, to: number) =>
				Array.from({ length: to - from + 1 }, (_, i) =>
					stepShare({ plannedSteps: planned }, { stage: from + i, against: 'both' })
				).reduce((sum, share) => sum + share, 0);
			expect(all(1, planned)).to.be.closeTo(0.04, 1e-12);
			expect(all(planned + 1, 60)).to.be.at.most(0.01 + 1e-12);
			// 0.5, 0.25, 0.125 %
			expect(all(planned + 1, planned + 3)).to.be.closeTo(0.00875, 1e-12);
			expect(stepShare({ plannedSteps: planned }, { stage: 1, against: 'start' })).to.be.closeTo(0.02 / planned, 1e-12);
		});

	it('needs rounds that can reach its shares: one deal in 924 of 6 and 6, in 3,432 of 7 and 7', () => {
		// Two of all deals, the data and their mirror image, are as far apart as can be.
		expect(2 / 924).to.be.below(stepShare({ plannedSteps: 4 }, { stage: 2, against: 'previous' }));
		expect(2 / 924).to.be.above(stepShare({ plannedSteps: 12 }, { stage: 2, against: 'previous' }));
		expect(2 / 3432).to.be.below(stepShare({ plannedSteps: 12 }, { stage: 2, against: 'previous' }));
		expect([4, 5, 12].map(fewestStepRounds)).to.deep.equal([6, 7, 7]);
		const input = (extra: object) =>
			v.safeParse(NewTrialInput, {
				question: 'What helps?',
				kind: 'before-after',
				plannedSteps: 4,
				arms: [{ name: 'As it was', url: 'http://a.test/' }],
				conditions: ['desktop'],
				rounds: 6,
				warmups: 0,
				...extra
			});
		expect(input({}).success).to.equal(true);
		expect(input({ plannedSteps: 12 }).issues![0].message).to.contain('fewer than 7 rounds a step');
		expect(input({ kind: 'side-by-side' }).success).to.equal(false);
		expect(input({ plannedSteps: 13 }).success).to.equal(false);
		expect(input({ plannedSteps: undefined }).success).to.equal(false);
	});

	it('needs more rounds the more is judged together: each test has two deals that part it wholly', () => {
		// Ten tests in 12,870 deals of 8 and 8; 3,432 of 7 and 7 are too few for a share of 0.5 %.
		expect(20 / 12_870).to.be.below(0.005);
		expect(20 / 3432).to.be.above(0.005);
		expect(usefulStepRounds(4, 10)).to.equal(8);
		expect(usefulStepRounds(4, 1)).to.equal(6);
	});

	it('judges steps against what was there before, with drift taken out', () => {
		const plan = log([step(2, 'Larder'), step(3, 'Joined'), step(4, 'Without', { undoes: 3 })]);
		const { results, steps } = judge(plan, loadsOf(plan, [2000, 1500, 1100, 1500]));
		const verdicts = (list: typeof results) =>
			list.filter(({ metric }) => metric === 'lcp').map(({ arm: id, baseline, verdict }) => [id, baseline, verdict]);
		expect(verdicts(steps!)).to.deep.equal([
			[2, 1, 'better'],
			[3, 2, 'better'],
			[4, 2, 'same']
		]);
		expect(verdicts(results)).to.deep.equal([
			[2, 1, 'better'],
			[3, 1, 'better'],
			[4, 1, 'better']
		]);
	});

	it('judges nothing of a stage of fewer rounds than its share takes', () => {
		const plan = log([step(2, 'Larder')], { rounds: 5 });
		expect(judge(plan, loadsOf(plan, [2000, 1000])).results.find(({ metric }) => metric === 'lcp')!.reason).to.include({
			code: 'few-rounds',
			least: 6
		});
	});
});

describe('a step that was taken back', () => {
	const back = (middle: number) => {
		const plan = log([step(2, 'Larder'), step(3, 'Joined'), step(4, 'Without', { undoes: 3 })]);
		const { steps } = judge(plan, loadsOf(plan, [2000, 1500, 1100, middle]));
		return wordReturned(
			steps!.filter((result) => result.arm === 4),
			{ arm: 'Without', baseline: 'Larder' }
		);
	};

	it('is told to be where it was only where everything is the same', () => {
		expect(back(1500)).to.equal('The page is back: no difference that matters from where it was.');
	});

	it('that does not come back is said, with the shift', () => {
		expect(back(1250)).to.match(/^The page did not come back to where it was\. .*less/);
	});
});

describe('a range', () => {
	it('stands beside a middle figure: the least and the most of so many', () => {
		expect(wordRange('score', [84, 79, 88, 85])).to.equal('85, 79 to 88 in 4');
		expect(wordRange('lcp', [2000, 1000, 3000])).to.equal('2.00\u00a0s, 1.00\u00a0s to 3.00\u00a0s in 3');
		expect(wordRange('score', [84, 84])).to.equal('84 in all 2');
		expect(wordRange('score', [])).to.equal('');
		expect(wordSpan('score', [88, 79])).to.equal('79 to 88');
		expect(wordSpan(null, [1200, 1200])).to.equal('');
		expect(wordSpan('lcp', [])).to.equal('');
	});
});

describe('a log of steps on a sample of pages', () => {
	const FARES = step(20, '/fares', { reference: true, page: '/fares' });

	/** The step makes the fares faster by a fifth and leaves the log's own page alone; the machine slows by a tenth. */
	function sample(extra: (one: TrialLoad) => Partial<TrialLoad> = () => ({})) {
		const plan = log([step(2, 'Larder')], { arms: [step(1, 'As it was'), REFERENCE, FARES, step(2, 'Larder')] });
		const random = seededRandom(5);
		const loads = [0, 1].flatMap((stage) =>
			Array.from({ length: plan.rounds }, (_, i) => i + 1).flatMap((round) => {
				const figure = (middle: number) => (stage ? 1.1 : 1) * middle * (1 + 0.01 * normalFrom(random));
				return [
					load(stage + 1, round, { lcp: figure(2000), wire: 500_000 }, { stage }),
					load(REFERENCE.id, round, { lcp: figure(1000), wire: 80_000 }, { stage }),
					load(FARES.id, round, { lcp: figure(stage ? 1200 : 1500), wire: 300_000 }, { stage })
				];
			})
		);
		return judge(
			plan,
			loads.map((one) => ({ ...one, ...extra(one) }))
		);
	}
	const verdictOf = (judged: ReturnType<typeof judge>, page?: number) =>
		(page === undefined ? judged.results : judged.samplePages!.start).find(({ metric }) => metric === 'lcp')!;

	it('judges each page against itself, in one family, with the drift taken out of each', () => {
		const judged = sample();
		expect(verdictOf(judged).verdict).to.be.oneOf(['same', 'undecided']);
		const fares = verdictOf(judged, FARES.id);
		expect(fares).to.include({ page: FARES.id, arm: 2, baseline: 1, verdict: 'better' });
		// 1,200 for 1,500 at the same speed of the machine; both printed at the machine that the start was measured on.
		expect(fares.shift!.estimate).to.be.closeTo(-300, 60);
		expect(judged.results.every(({ page }) => page === undefined)).to.equal(true);
		expect(judged.samplePages!.previous).to.have.length(judged.steps!.length);
	});

	it('holds a page that fails too often, and the others not', () => {
		const judged = sample(({ armId, round }) =>
			armId === FARES.id && round % 2 ? { status: 'failed', figures: {} as TrialLoad['figures'] } : {}
		);
		expect(verdictOf(judged, FARES.id).reason).to.include({ code: 'failures', arm: '/fares' });
		expect(verdictOf(judged).reason).to.equal(null);
	});

	it('takes pages of a log alone, each once, and not more than it can carry', () => {
		const faults = (extra: object) => {
			const read = v.safeParse(NewTrialInput, {
				question: 'What helps?',
				kind: 'before-after',
				plannedSteps: 4,
				arms: [{ name: 'As it was', url: 'https://skerry-line.test/' }],
				conditions: ['phone'],
				rounds: 8,
				warmups: 1,
				...extra
			});
			return read.success ? [] : read.issues.map(({ message }) => message);
		};
		expect(faults({ samplePages: ['https://skerry-line.test/fares'] })).to.deep.equal([]);
		expect(faults({ samplePages: ['https://skerry-line.test/'] })[0]).to.match(/named once/);
		expect(
			faults({ samplePages: ['https://skerry-line.test/about'], referenceUrl: 'https://skerry-line.test/about' })[0]
		).to.match(/reference page is none/);
		expect(faults({ samplePages: Array.from({ length: 6 }, (_, i) => `https://skerry-line.test/${i}`) })[0]).to.match(
			/at most 5 pages/
		);
		expect(
			faults({
				plannedSteps: null,
				samplePages: ['https://skerry-line.test/fares'],
				arms: [
					{ name: 'Before', url: 'https://skerry-line.test/' },
					{ name: 'After', url: 'https://skerry-line.test/' }
				]
			})[0]
		).to.match(/belong to a log/);
	});
});
