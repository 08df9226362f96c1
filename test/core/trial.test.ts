import { expect } from 'chai';
import * as v from 'valibot';
import { BUILT_IN_CONDITIONS } from '../../src/core/load/conditions';
import { noFigures, type MetricId } from '../../src/core/metrics/catalogue';
import { NewTrialInput } from '../../src/core/trial/input';
import { judge } from '../../src/core/trial/judge';
import { planLoads } from '../../src/core/trial/plan';
import type { TrialDesign, TrialLoad } from '../../src/core/trial/types';
import { decide, roundsToDecide } from '../../src/core/trial/verdict';
import { headlineOf } from '../../src/core/wording/headline';
import { normalFrom, seededRandom } from '../../src/core/stats/random';

const arm = (id: number, name: string, extra = {}) => ({ id, name, url: `http://a${id}.test/`, baseline: id === 1, reference: false, ...extra });

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
function load(armId: number, round: number, figures: Partial<Record<MetricId, number>>, extra: Partial<TrialLoad> = {}): TrialLoad {
	return { id: nextId++, armId, conditionId: 'desktop', stage: 0, round, warmup: false, status: 'ok', excluded: null, figures: { ...noFigures(), ...figures }, ...extra };
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

const lcpOf = (judgement: ReturnType<typeof judge>) => judgement.results.find((result) => result.metric === 'lcp')!;

describe('plan', () => {
	const wide = design({ arms: [1, 2, 3, 4].map((id) => arm(id, `Arm ${id}`)), conditions: [...BUILT_IN_CONDITIONS], rounds: 6, warmups: 2 });

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
		const staged = design({ kind: 'before-after', arms: [arm(1, 'Before'), arm(2, 'After'), arm(3, 'Reference', { reference: true })], rounds: 3 });
		const plan = planLoads(staged);
		expect(plan.map((one) => one.stage)).to.deep.equal([...Array(6).fill(0), ...Array(6).fill(1)]);
		expect(plan.filter((one) => one.armId === 3)).to.have.length(6);
		expect(plan.filter((one) => one.stage === 0 && one.armId === 2)).to.have.length(0);
	});
});

describe('verdict rule', () => {
	const at = (low: number | null, high: number | null, p = 0.001, metric: MetricId = 'lcp') =>
		decide({ metric, shift: { estimate: ((low ?? 0) + (high ?? 0)) / 2, low, high }, margin: 100, p, alpha: 0.05 });

	it('gives each of its verdicts', () => {
		expect(at(101, 300)).to.equal('worse');
		expect(at(-300, -101)).to.equal('better');
		expect(at(101, 300, 0.001, 'score')).to.equal('better');
		expect(at(-100, 100)).to.equal('same');
		expect(at(10, 90), 'clear but small').to.equal('same');
		expect(at(60, 300)).to.equal('slight');
		expect(at(-300, -100)).to.equal('slight');
		expect(at(-50, 300)).to.equal('undecided');
		expect(at(101, 300, 0.2), 'not after the correction').to.equal('undecided');
		expect(at(null, null)).to.equal('undecided');
	});

	it('asks for more rounds the nearer the margin and the larger the noise', () => {
		const options = { alpha: 0.05, tests: 5 };
		const few = roundsToDecide(200, 100, 60, options)!;
		expect(roundsToDecide(160, 100, 60, options)).to.be.above(few);
		expect(roundsToDecide(200, 100, 120, options)).to.be.above(few);
		expect(roundsToDecide(100, 100, 60, options)).to.equal(null);
		expect(roundsToDecide(500, 100, 1, options)).to.equal(8);
	});
});

describe('judging', () => {
	it('finds a shift that a drift shared by the rounds would hide', () => {
		const result = lcpOf(judge(design(), rounds(260)));
		expect(result).to.include({ verdict: 'worse', n: 10, primary: true });
		expect(result.shift!.estimate).to.be.closeTo(260, 15);
		expect(result.shift!.relative!.estimate).to.be.closeTo(0.13, 0.015);
		expect(result.adjustedP).to.be.at.least(result.p!);
	});

	it('calls equal pages the same, and bytes that never differ the same', () => {
		const judgement = judge(design(), rounds(0));
		expect(lcpOf(judgement).verdict).to.equal('same');
		expect(judgement.results.find((result) => result.metric === 'wire')).to.include({ verdict: 'same', p: 1 });
	});

	it('99 against 98 in single loads is no result (common practice)', () => {
		const once = [load(1, 1, { score: 98 }), load(2, 1, { score: 99 })];
		const result = judge(design({ primary: ['score'] }), once).results.find((one) => one.metric === 'score')!;
		expect(result.verdict).to.equal('undecided');
		expect(result.shift).to.include({ low: null, high: null });
	});

	it('leaves out warm-ups, failed and excluded loads, and their round with them', () => {
		const loads = rounds(260);
		const disturbed = [
			...loads,
			load(1, 11, { lcp: 9 }, { warmup: true }),
			load(2, 11, { lcp: 99_999 }, { warmup: true }),
			load(1, 12, { lcp: 2000 }),
			load(2, 12, { lcp: 90_000 }, { excluded: 'a backup ran' }),
			load(1, 13, { lcp: 2000 }),
			load(2, 13, {}, { status: 'failed' })
		];
		const judgement = judge(design(), disturbed);
		expect(lcpOf(judgement).n).to.equal(10);
		expect(lcpOf(judgement).shift).to.deep.equal(lcpOf(judge(design(), loads)).shift);
		expect(judgement.health.find((entry) => entry.arm === 2)).to.include({ loads: 12, failed: 1, excluded: 1 });
	});

	it('gives no verdict on an arm of which more than a fifth failed', () => {
		const failing = [...rounds(260, 15, 8), ...[9, 10, 11].flatMap((round) => [load(1, round, { lcp: 2000 }), load(2, round, {}, { status: 'failed' })])];
		const result = lcpOf(judge(design(), failing));
		expect(result.verdict).to.equal('none');
		expect(result.reason).to.equal('3 of 11 loads of “Changed” failed.');
		const fifth = [...rounds(260, 15, 8), ...[9, 10].flatMap((round) => [load(1, round, { lcp: 2000 }), load(2, round, {}, { status: 'failed' })])];
		expect(lcpOf(judge(design(), fifth)).verdict).to.equal('worse');
	});

	it('has no per cent where zero is about', () => {
		const loads = [1, 2, 3, 4, 5, 6, 7, 8].flatMap((round) => [load(1, round, { tbt: 0, cls: 0.01 }), load(2, round, { tbt: 200 + round, cls: 0.2 })]);
		const results = judge(design({ primary: ['tbt', 'cls'] }), loads).results;
		expect(results.find((one) => one.metric === 'tbt')).to.include({ verdict: 'worse' });
		expect(results.find((one) => one.metric === 'tbt')!.shift!.relative).to.equal(null);
		expect(results.find((one) => one.metric === 'cls')!.shift!.relative).to.equal(null);
	});

	it('takes the drift between stages out with a reference page', () => {
		const random = seededRandom(4);
		const staged = design({ kind: 'before-after', arms: [arm(1, 'Before'), arm(2, 'After'), arm(3, 'Reference', { reference: true })], primary: ['lcp'] });
		const loads = [0, 1].flatMap((stage) =>
			Array.from({ length: 12 }, (_, i) => i + 1).flatMap((round) => [
				load(stage + 1, round, { lcp: 2000 + stage * 400 + 20 * normalFrom(random) }, { stage }),
				load(3, round, { lcp: 1500 + stage * 400 + 20 * normalFrom(random) }, { stage })
			])
		);
		const result = lcpOf(judge(staged, loads));
		expect(result.rawShift!.estimate).to.be.closeTo(400, 25);
		expect(result.shift!.estimate).to.be.closeTo(0, 25);
		expect(result.verdict).to.equal('same');
	});

	it('says the answer in one line for each of the conditions', () => {
		const lines = headlineOf(design(), judge(design(), rounds(260)));
		expect(lines[0]).to.include({ tone: 'worse' });
		expect(lines[0]!.text).to.equal('“Changed” is slower (LCP) than “As it is”; no practical difference in Bytes.');
		expect(headlineOf(design(), judge(design(), []))[0]).to.include({ tone: 'none' });
	});
});

describe('the door for a new trial', () => {
	const good = {
		question: 'Does it?',
		kind: 'side-by-side',
		arms: [{ name: 'A', url: 'http://a.test/' }, { name: 'B', url: 'https://b.test/x' }],
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
