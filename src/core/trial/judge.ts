/** Judging a trial: from its finished loads to shifts and verdicts. Pure, seeded, repeatable at any time. */
import { METRICS, marginFor, metricOf, type MetricId } from '../metrics/catalogue';
import { bcaInterval } from '../stats/bootstrap';
import type { Estimate } from '../stats/estimate';
import { holm } from '../stats/holm';
import { hodgesLehmann, twoSampleShift } from '../stats/rankSum';
import { pairedShift, pairedSpread } from '../stats/signedRank';
import { medianOrNull, scaledMad } from '../stats/summary';
import type { ArmHealth, Interval, Judgement, Shift, ShiftResult, TrialArm, TrialDesign, TrialLoad } from './types';
import { levelOf, looksOf } from './looks';
import { decide, roundsToDecide } from './verdict';

/** Changes whenever a rule of judging changes, so that cached judgements are computed again. */
export const JUDGE_VERSION = '2';

/** An arm with a larger share of failed loads gets no verdict. */
export const MOST_FAILURES = 0.2;

/** Values of one arm under one set of conditions. */
interface Sample {
	values: number[];
	byRound: Map<number, number>;
}

/** Arm id of all pages of a sweep together. */
export const ALL_PAGES = 0;

interface Comparison {
	baseline: TrialArm;
	arm: TrialArm;
}

/**
 * What is compared with what: every arm with the baseline; in a sweep each page's arms with that page's own.
 * @throws RangeError when an arm has nothing to be compared with
 */
export function comparisonsOf(design: TrialDesign): Comparison[] {
	const compared = design.arms.filter((arm) => !arm.reference);
	const baselineOf = (arm: TrialArm) => compared.find((one) => one.baseline && (design.kind !== 'sweep' || one.page === arm.page));
	return compared
		.filter((arm) => !arm.baseline)
		.map((arm) => {
			const baseline = baselineOf(arm);
			if (!baseline) throw new RangeError('A trial needs a baseline arm.');
			return { baseline, arm };
		});
}

/**
 * Judge all counted loads of a trial. Warm-ups, failed and excluded loads never enter an estimate; failures count
 * against their arm. Looking more than once costs level: Pocock's for the number of looks.
 * @returns one result per conditions, metric and comparison, in that order; a sweep has one more for all its pages
 * @throws RangeError when the design has no baseline
 */
export function judge(design: TrialDesign, loads: readonly TrialLoad[], alpha = levelOf(design)): Judgement {
	if (!design.arms.some((arm) => arm.baseline)) throw new RangeError('A trial needs a baseline arm.');
	const comparisons = comparisonsOf(design);
	const counted = loads.filter((load) => !load.warmup);
	const health = design.conditions.flatMap((conditions) =>
		design.arms.map((arm) => healthOf(counted, conditions.id, arm))
	);
	const pooled = design.kind === 'sweep' && comparisons.length > 1;
	const tests = (comparisons.length + Number(pooled)) * design.primary.length;
	const results = design.conditions.flatMap((conditions) => {
		const here = counted.filter((load) => load.conditionId === conditions.id);
		const drafts = METRICS.flatMap((metric) => {
			const context = { design, condition: conditions.id, metric: metric.id, loads: here, alpha };
			const each = comparisons.map((comparison) => draftResult({ ...context, ...comparison }, health, tests));
			return pooled ? [...each, allPages(context, comparisons, health, tests)] : each;
		});
		return decided(drafts, alpha);
	});
	return { version: JUDGE_VERSION, alpha, looks: looksOf(design), results, health };
}

/** One answer over all pages: round by round the mean over the pages of each page's own difference. */
function allPages(context: Omit<Context, 'baseline' | 'arm'>, comparisons: readonly Comparison[], health: readonly ArmHealth[], tests: number): Draft {
	const { condition, metric, loads, alpha } = context;
	const pairs = comparisons.map(({ baseline, arm }) => [sampleOf(loads, baseline.id, metric), sampleOf(loads, arm.id, metric)] as const);
	const rounds = [...(pairs[0]?.[0].byRound.keys() ?? [])].filter((round) => pairs.every((pair) => pair.every((sample) => sample.byRound.has(round))));
	const meanOf = (side: 0 | 1, round: number) => pairs.reduce((sum, pair) => sum + pair[side].byRound.get(round)!, 0) / pairs.length;
	const draft = blankDraft({ ...context, baseline: comparisons[0]!.baseline, arm: { ...comparisons[0]!.arm, id: ALL_PAGES, name: 'All pages' } }, rounds.map((round) => meanOf(0, round)), rounds.map((round) => meanOf(1, round)), tests);
	draft.reason = comparisons.map(({ baseline, arm }) => failureReason(health, condition, [baseline, arm])).find(Boolean) ?? null;
	if (!rounds.length) return { ...draft, reason: draft.reason ?? 'No round has loads of all pages yet.' };
	const differences = rounds.map((round) => meanOf(1, round) - meanOf(0, round));
	const estimate = pairedShift(differences, alpha);
	const positive = ratioMakesSense(metric) && pairs.every((pair) => rounds.every((round) => pair[0].byRound.get(round)! > 0 && pair[1].byRound.get(round)! > 0));
	const logs = rounds.map((round) => pairs.reduce((sum, [before, after]) => sum + Math.log(after.byRound.get(round)! / before.byRound.get(round)!), 0) / pairs.length);
	const relative = positive ? asShares(pairedShift(logs, alpha)) : null;
	return { ...draft, n: estimate.n, shift: { ...finite(estimate), relative }, p: estimate.p, spread: pairedSpread(differences) };
}

function healthOf(loads: readonly TrialLoad[], condition: string, arm: TrialArm): ArmHealth {
	const own = loads.filter((load) => load.conditionId === condition && load.armId === arm.id);
	return {
		condition,
		arm: arm.id,
		loads: own.length,
		failed: own.filter((load) => load.status === 'failed').length,
		excluded: own.filter((load) => load.excluded !== null).length
	};
}

function sampleOf(loads: readonly TrialLoad[], armId: number, metric: MetricId, stage?: number): Sample {
	const sample: Sample = { values: [], byRound: new Map() };
	for (const load of loads) {
		const value = load.figures[metric];
		if (load.armId !== armId || load.status !== 'ok' || load.excluded !== null || value === null) continue;
		if (stage !== undefined && load.stage !== stage) continue;
		sample.values.push(value);
		sample.byRound.set(load.round, value);
	}
	return sample;
}

interface Context {
	design: TrialDesign;
	condition: string;
	metric: MetricId;
	baseline: TrialArm;
	arm: TrialArm;
	/** Counted loads under these conditions. */
	loads: readonly TrialLoad[];
	alpha: number;
}

interface Draft extends ShiftResult {
	/** Spread behind the power calculation, in the metric's unit. */
	spread: number;
	tests: number;
}

function draftResult(context: Context, health: readonly ArmHealth[], tests: number): Draft {
	const { design, condition, metric, baseline, arm, loads, alpha } = context;
	const before = sampleOf(loads, baseline.id, metric);
	const after = sampleOf(loads, arm.id, metric);
	const draft = blankDraft(context, before.values, after.values, tests);
	draft.reason = failureReason(health, condition, [baseline, arm]);
	const measured = design.kind === 'before-after' ? shiftOfStages(context, before, after) : shiftOfRounds(before, after, metric, alpha);
	if (!measured) {
		draft.reason ??= `${metricOf(metric).name} was not measured in both arms.`;
		return draft;
	}
	return { ...draft, ...measured };
}

function blankDraft({ design, condition, metric, baseline, arm }: Context, before: readonly number[], after: readonly number[], tests: number): Draft {
	const baselineMedian = medianOrNull(before);
	return {
		condition,
		metric,
		baseline: baseline.id,
		arm: arm.id,
		n: 0,
		baselineMedian,
		armMedian: medianOrNull(after),
		shift: null,
		rawShift: null,
		margin: marginFor(metric, baselineMedian ?? 0),
		p: null,
		adjustedP: null,
		primary: design.primary.includes(metric),
		verdict: 'none',
		reason: null,
		roundsNeeded: null,
		spread: 0,
		tests
	};
}

function failureReason(health: readonly ArmHealth[], condition: string, arms: readonly TrialArm[]): string | null {
	for (const arm of arms) {
		const own = health.find((entry) => entry.condition === condition && entry.arm === arm.id);
		if (own && own.loads > 0 && own.failed / own.loads > MOST_FAILURES)
			return `${own.failed} of ${own.loads} loads of “${arm.name}” failed.`;
	}
	return null;
}

type Measured = Pick<Draft, 'n' | 'shift' | 'rawShift' | 'p' | 'spread'>;

/** Paired differences per round. */
function shiftOfRounds(before: Sample, after: Sample, metric: MetricId, alpha: number): Measured | null {
	const rounds = [...before.byRound.keys()].filter((round) => after.byRound.has(round));
	if (rounds.length === 0) return null;
	const pairs = rounds.map((round) => [before.byRound.get(round)!, after.byRound.get(round)!] as const);
	const differences = pairs.map(([from, to]) => to - from);
	const estimate = pairedShift(differences, alpha);
	const hasRatio = ratioMakesSense(metric) && pairs.every(([from, to]) => from > 0 && to > 0);
	const relative = hasRatio ? pairedShift(pairs.map(([from, to]) => Math.log(to / from)), alpha) : null;
	return {
		n: estimate.n,
		shift: { ...finite(estimate), relative: relative && asShares(relative) },
		rawShift: null,
		p: estimate.p,
		spread: pairedSpread(differences)
	};
}

/** Two samples in time, corrected by the reference page's own shift where there is one. */
function shiftOfStages(context: Context, before: Sample, after: Sample): Measured | null {
	const { design, metric, baseline, arm, loads, alpha } = context;
	if (!before.values.length || !after.values.length) return null;
	const hasRatio = ratioMakesSense(metric) && [...before.values, ...after.values].every((value) => value > 0);
	const n = Math.min(before.values.length, after.values.length);
	const spread = Math.SQRT2 * Math.max(scaledMad(before.values), scaledMad(after.values));
	const raw = twoSampleShift(before.values, after.values, alpha);
	const stages = design.arms.filter((other) => !other.reference).map((other) => other.id);
	const reference = design.arms.find((other) => other.reference);
	const calm = [baseline, arm].map((stage) =>
		reference ? sampleOf(loads, reference.id, metric, stages.indexOf(stage.id)).values : []
	);
	const samples = [before.values, after.values, ...calm];
	if (!reference || samples.some((sample) => sample.length < 2)) {
		const relative = hasRatio ? twoSampleShift(before.values.map(Math.log), after.values.map(Math.log), alpha) : null;
		const shift: Shift = { ...finite(raw), relative: relative && asShares(relative) };
		return { n, shift, rawShift: null, p: raw.p, spread };
	}
	const correct = ([b, a, b0, a0]: readonly (readonly number[])[]) => hodgesLehmann(b!, a!) - hodgesLehmann(b0!, a0!);
	const corrected = bcaInterval(samples, correct, { alpha, seed: design.seed });
	const positive = hasRatio && calm.flat().every((value) => value > 0);
	const logs = samples.map((sample) => sample.map(Math.log));
	const relative = positive ? bcaInterval(logs, correct, { alpha, seed: design.seed }) : null;
	return {
		n,
		shift: { ...finite(corrected), relative: relative && asShares(relative) },
		rawShift: finite(raw),
		p: corrected.p,
		spread: Math.SQRT2 * spread
	};
}

/** Points and layout shifts have no sensible ratio: near zero a per cent says nothing. */
function ratioMakesSense(metric: MetricId): boolean {
	const { unit } = metricOf(metric);
	return unit !== 'points' && unit !== 'unitless';
}

function finite({ estimate, low, high }: Estimate): Interval {
	return { estimate, low: Number.isFinite(low) ? low : null, high: Number.isFinite(high) ? high : null };
}

function asShares(logs: Estimate): Interval {
	const { estimate, low, high } = finite(logs);
	return { estimate: Math.expm1(estimate), low: low && Math.expm1(low), high: high && Math.expm1(high) };
}

/** Holm over the primary metrics of these conditions, then the verdict of each result. */
function decided(drafts: readonly Draft[], alpha: number): ShiftResult[] {
	const tested = drafts.filter((draft) => draft.primary && draft.p !== null && draft.reason === null);
	const adjusted = holm(tested.map((draft) => draft.p!));
	const adjustedOf = new Map(tested.map((draft, i) => [draft, adjusted[i]!]));
	return drafts.map((draft) => {
		const { spread, tests, ...result } = draft;
		if (!result.shift || result.p === null || result.reason !== null) return result;
		const adjustedP = adjustedOf.get(draft) ?? result.p;
		const { metric, shift, margin } = result;
		const verdict = decide({ metric, shift, margin, p: adjustedP, alpha });
		const share = { alpha, tests: result.primary ? tests : 1 };
		const roundsNeeded = verdict === 'undecided' ? roundsToDecide(shift.estimate, margin, spread, share) : null;
		return { ...result, adjustedP, verdict, roundsNeeded };
	});
}
