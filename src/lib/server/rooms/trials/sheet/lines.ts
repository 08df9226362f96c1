/** The parts of a trial's sheet, each in one line of finding. */
import { PICTURE_WITHIN } from '$core/compare/regressions';
import { metricOf, METRIC_IDS, type MetricId } from '$core/metrics/catalogue';
import { comparisonsOf } from '$core/trial/design/comparisons';
import { isSamePage } from '$core/trial/design/kinds';
import { countedLoads } from '$core/trial/judge/counted';
import type { LateLoadView } from '../queries/lateView';
import { isShown } from '$core/trial/judge/shown';
import { NO_SETUP, setupDifferences } from '$core/trial/design/setup';
import type { Judgement, ShiftResult, TrialDesign } from '$core/trial/types';
import { byLikelihood } from '$core/compare/causes';
import { toldCauses } from '$core/wording/causes';
import { formatBytes } from '$core/wording/format';
import { regressionParts } from '$core/wording/regressions';
import { PART_WORDS } from '$core/wording/parts';
import type { ArmEvidenceView, EvidenceView } from '../evidenceView';
import type { LoadSummary } from '../../loads/view';

export type PartId =
	| 'why'
	| 'broke'
	| 'fairness'
	| 'worth'
	| 'shifts'
	| 'table'
	| 'frames'
	| 'held'
	| 'arms'
	| 'method'
	| 'loads'
	| 'repeats';

export interface PartView {
	id: PartId;
	finding: string;
	isTrouble: boolean;
}

export interface PartsInput {
	design: TrialDesign;
	judgement: Judgement;
	evidence: EvidenceView;
	loads: readonly LoadSummary[];
	outlying: Readonly<Partial<Record<string, readonly number[]>>>;
	metric: MetricId;
	isOpen: boolean;
	/** Nobody is there to work out what is missing. */
	isLabOff: boolean;
	/** Loads in which the lab waited on or made an input. */
	late: readonly LateLoadView[];
	worth: readonly { words: string }[];
	repeats: number;
}

const say = PART_WORDS.say.bind(PART_WORDS);
const part = (id: PartId, finding: string, isTrouble = false): PartView => ({ id, finding, isTrouble });

/** In the order of the sheet; parts that have nothing to show are left out. */
export function partLines(input: PartsInput): PartView[] {
	const { design, judgement, loads, repeats } = input;
	const hasAnswer = judgement.results.length > 0;
	// Between looks no figures stand beside each other.
	const hasFigures = loads.some((load) => !load.warmup && load.figures.requests !== null && isShown(design, load));
	const explains = hasAnswer && !isSamePage(design.kind);
	return [
		...(explains ? [whyPart(input), brokePart(input), fairnessPart(input), worthPart(input)] : []),
		...(hasFigures ? [shiftsPart(input)] : []),
		...(hasAnswer ? [tablePart(input)] : []),
		...(explains ? [framesPart(input), heldPart(input)] : []),
		armsPart(design),
		part('method', say('part.method', { rounds: roundsOf(input), looks: judgement.looks.length })),
		...(loads.length ? [loadsPart(input)] : []),
		...(repeats ? [part('repeats', say('part.repeats', { n: repeats }))] : [])
	];
}

const roundsOf = ({ design, judgement }: PartsInput) => judgement.looks.at(-1)?.rounds ?? design.rounds;

const armName = ({ arms }: TrialDesign, id: number | null) => arms.find((arm) => arm.id === id)?.name ?? '';

/** What evidence that is not there yet says of itself; null when it is there. */
function awaited({ evidence, isOpen, isLabOff }: PartsInput): string | null {
	if (evidence.arms.length && !evidence.pending) return null;
	if (isLabOff) return say('part.off');
	return say(isOpen ? 'part.later' : 'part.pending');
}

export function verdictsOf(results: readonly ShiftResult[], condition: string, arm: number) {
	const own = results.filter((result) => result.primary && result.condition === condition && result.arm === arm);
	return Object.fromEntries(own.map((result) => [result.metric, result.verdict]));
}

function whyPart(input: PartsInput): PartView {
	const { design, evidence, judgement } = input;
	const pending = awaited(input);
	if (pending) return part('why', pending);
	const causes = evidence.arms.flatMap(({ condition, arm, why }) =>
		toldCauses(why?.causes ?? [], verdictsOf(judgement.results, condition, arm)).map((cause) => ({ arm, cause }))
	);
	const [likeliest] = causes.sort((a, b) => byLikelihood(a.cause, b.cause));
	if (!likeliest) return part('why', say('part.why.none'));
	return part('why', findingOf(design, likeliest.arm, likeliest.cause.words));
}

/** A finding of one variant, named where there are more. */
function findingOf(design: TrialDesign, arm: number, finding: string): string {
	return comparisonsOf(design).length > 1 ? say('part.of', { arm: armName(design, arm), finding }) : finding;
}

function brokePart(input: PartsInput): PartView {
	const pending = awaited(input);
	if (pending) return part('broke', pending);
	const { design, evidence } = input;
	const broken = evidence.arms.find(({ broke }) => broke.broken);
	if (broken)
		return part(
			'broke',
			say('part.broke.some', { arm: armName(design, broken.arm), parts: regressionParts(broken.broke).join(', ') }),
			true
		);
	const shareOf = ({ broke }: ArmEvidenceView) => broke.pictureShare ?? 0;
	const other = evidence.arms.find((arm) => shareOf(arm) > PICTURE_WITHIN);
	if (other) {
		const percent = Math.round(shareOf(other) * 100);
		return part('broke', say('part.broke.looks', { arm: armName(design, other.arm), percent }), true);
	}
	return part('broke', say('part.broke.nothing', { steps: stepsOf(evidence.arms) }));
}

/** How the steps of all loads went, in both variants. */
function stepsOf(arms: readonly ArmEvidenceView[]): 'none' | 'all' | 'some' {
	const counts = arms.flatMap(({ broke }) => [broke.steps.before, broke.steps.after]);
	if (counts.every(([, run]) => run === 0)) return 'none';
	return counts.every(([ok, run]) => ok === run) ? 'all' : 'some';
}

function fairnessPart(input: PartsInput): PartView {
	const pending = awaited(input);
	if (pending) return part('fairness', pending);
	const uneven = (arm: ArmEvidenceView) => arm.fairness.filter(({ state }) => state === 'differs');
	const most = input.evidence.arms.reduce((a, b) => (uneven(b).length > uneven(a).length ? b : a));
	const differs = uneven(most);
	const all = most.fairness.length;
	if (!differs.length) {
		const unknown = most.fairness.filter(({ state }) => state === 'unknown').length;
		return part('fairness', say('part.fairness.level', { all, equal: all - unknown, unknown }));
	}
	const intended = differs.filter(({ id }) => input.design.intended?.includes(id)).length;
	const meant = intended === differs.length ? 'all' : intended > 0 ? 'some' : 'none';
	const finding = say('part.fairness.differs', { differs: differs.length, all, intended: meant });
	return part('fairness', findingOf(input.design, most.arm, finding), meant !== 'all');
}

const worthPart = ({ worth }: PartsInput) => part('worth', worth[0]?.words ?? '');

function shiftsPart({ design, loads, metric }: PartsInput): PartView {
	const counted = countedLoads(design, loads).length;
	return part('shifts', say('part.shifts', { metric: metricOf(metric).name, n: counted }));
}

function tablePart({ design, judgement }: PartsInput): PartView {
	const shown = METRIC_IDS.filter((id) => judgement.results.some(({ metric, shift }) => metric === id && shift));
	return part('table', say('part.table', { n: shown.length, decided: design.primary.length }));
}

function framesPart(input: PartsInput): PartView {
	const pending = awaited(input);
	return part('frames', pending ?? say(input.evidence.films.length ? 'part.frames' : 'part.frames.none'));
}

function heldPart({ design, late }: PartsInput): PartView {
	if (!late.length) return part('held', say('part.held.not-asked'));
	const measured = late.filter(({ facts }) => facts);
	const [most] = measured
		.filter(({ facts }) => facts!.requests > 0)
		.sort((a, b) => b.facts!.wireBytes - a.facts!.wireBytes);
	if (!most && measured.length) return part('held', say('part.held.nothing', { n: measured.length }));
	if (!most) return part('held', say('part.held.open'));
	const { requests, wireBytes, kind } = most.facts!;
	return part(
		'held',
		say('part.held.some', { arm: armName(design, most.arm), requests, bytes: formatBytes(wireBytes), kind }),
		true
	);
}

function armsPart(design: TrialDesign): PartView {
	const compared = design.arms.filter((arm) => !arm.reference);
	const differences = comparisonsOf(design).flatMap(({ arm, baseline }) =>
		setupDifferences(baseline.setup ?? NO_SETUP, arm.setup ?? NO_SETUP)
	).length;
	const setups = !compared.some((arm) => arm.setup) ? 'none' : differences ? 'some' : 'same';
	return part('arms', say('part.arms', { n: compared.length, setups, differences }));
}

function loadsPart({ loads, outlying }: PartsInput): PartView {
	const failed = loads.filter((load) => load.status === 'failed').length;
	return part(
		'loads',
		say('part.loads', {
			n: loads.length,
			failed,
			disturbed: loads.filter((load) => load.disturbed).length,
			excluded: loads.filter((load) => load.excluded !== null).length,
			outlying: new Set(Object.values(outlying).flatMap((ids) => ids ?? [])).size
		}),
		failed > 0
	);
}
