/** What the blocks of a trial say in lines and tables: why, weight, what broke, worth, method. */
import type { Breakdown, Part } from '$core/compare/breakdowns';
import { comparisonsOf, type Comparison } from '$core/trial/design/comparisons';
import { countedLoads } from '$core/trial/judge/counted';
import { hasStages } from '$core/trial/design/kinds';
import { metricOf, type MetricId } from '$core/metrics/catalogue';
import { JUDGE_VERSION } from '$core/trial/judge/judge';
import { roundTripOf, type Conditions } from '$core/load/conditions/conditions';
import { worthOf } from '$core/wording/worth';
import { toldCauses, describeCause } from '$core/wording/causes';
import { listOf, plainList } from '$core/wording/plainNames';
import { boardName } from '$core/wording/board';
import { localNumber } from '$core/wording/localNumber';
import { wordMoney } from '$core/wording/money';
import { wordChange, wordUnit } from '$core/wording/report';
import type { TableView } from '$core/report/view';
import type { ArmEvidence } from '../../trials/evidence';
import type { Material, TrialMaterial } from '../material';
import type { TrialBlock } from './trialBlocks';

interface Compared extends Comparison {
	condition: string;
	/** "Phone", "Phone: With chat" */
	title: string;
	evidence: ArmEvidence | null;
}

/** Every comparison under every set of conditions. */
function comparedIn({ design, evidence }: TrialMaterial): Compared[] {
	const comparisons = comparisonsOf(design);
	return design.conditions.flatMap(({ id, name }) =>
		comparisons.map((pair) => ({
			...pair,
			condition: id,
			title: comparisons.length > 1 ? `${name}: ${pair.arm.page ?? pair.arm.name}` : name,
			evidence: evidence?.arms.find(({ condition, arm }) => condition === id && arm === pair.arm.id) ?? null
		}))
	);
}

const missing = ({ words }: Material, what: 'evidence' | 'why' | 'weight' | 'prices') =>
	({ kind: 'missing', why: words.say(`report.missing.${what}`), isEmpty: what !== 'evidence' }) as const;

const EXPLAINED = ['lcp', 'tbt', 'wire'] as const;
type Explained = (typeof EXPLAINED)[number];
const MOST_PARTS = 4;
const MOST_CAUSES = 4;

export const whyBlock: TrialBlock = (material, trial) => {
	if (!trial.evidence) return missing(material, 'evidence');
	const groups = comparedIn(trial).flatMap(({ title, condition, arm, evidence }) => {
		if (!evidence?.why) return [];
		const verdicts = Object.fromEntries(
			trial.judgement.results
				.filter((result) => result.condition === condition && result.arm === arm.id)
				.map(({ metric, verdict }) => [metric, verdict])
		);
		const differs = (metric: MetricId) => ['better', 'worse', 'slight'].includes(verdicts[metric] ?? 'none');
		const causes = toldCauses(
			evidence.why.causes.map((cause) => ({ ...cause, words: describeCause(cause, material.words) })),
			verdicts
		);
		const broken = evidence.why.breakdowns.filter(
			({ metric }) => EXPLAINED.includes(metric as Explained) && differs(metric)
		);
		const lines = [
			...causes.slice(0, MOST_CAUSES).map(({ words }) => words),
			...broken.flatMap((breakdown) => breakdownLine(material, breakdown))
		];
		return lines.length ? [{ title, lines }] : [];
	});
	return groups.length ? { kind: 'lines', groups } : missing(material, 'why');
};

function breakdownLine({ words }: Material, { metric, parts }: Breakdown): string[] {
	const owners = metric === 'wire' ? byOwner(parts) : parts;
	const named = owners.filter(({ shift }) => Math.abs(shift) > 0).slice(0, MOST_PARTS);
	if (!named.length) return [];
	const partWords = named.map((part) =>
		words.say('report.why.owner', {
			owner: partName(part, words),
			shift: wordChange({ metric, scale: 'unit' }, part.shift, words)
		})
	);
	return [words.say(`report.why.${metric as Explained}`, { parts: partWords.join('; ') })];
}

const LCP_PARTS = ['firstByte', 'resourceDelay', 'resourceLoad', 'renderDelay'] as const;

function partName({ key, name }: Pick<Part, 'key' | 'name'>, words: Material['words']): string {
	const lcpPart = LCP_PARTS.find((part) => part === key);
	if (lcpPart) return words.say(`report.lcp.${lcpPart}`);
	if (key === 'own' || key === 'page') return words.say('report.why.own');
	return key === 'browser' ? words.say('report.why.browser') : name;
}

/** Files added up by whose they are, the largest change first. */
function byOwner(parts: readonly Part[]): Part[] {
	const owners = new Map<string, Part>();
	for (const part of parts) {
		const key = part.owner?.kind === 'third-party' ? part.owner.id : 'own';
		const existing = owners.get(key);
		if (existing) {
			existing.before += part.before;
			existing.after += part.after;
			existing.shift += part.shift;
		} else owners.set(key, { ...part, key, name: part.owner?.name ?? part.name });
	}
	return [...owners.values()].sort((a, b) => Math.abs(b.shift) - Math.abs(a.shift));
}

export const weightBlock: TrialBlock = (material, trial) => {
	if (!trial.evidence) return missing(material, 'evidence');
	const { words } = material;
	const tables = comparedIn(trial).flatMap(({ title, baseline, arm, evidence }): TableView[] => {
		const files = evidence?.why?.files ?? [];
		if (!files.length) return [];
		const owners = byOwner(files);
		const most = Math.max(...owners.flatMap(({ before, after }) => [before, after]));
		const bytes = (value: number) => wordUnit('bytes', value, words);
		const all = (side: 'before' | 'after') => owners.reduce((sum, owner) => sum + owner[side], 0);
		return [
			{
				title,
				head: [words.say('report.weight.owner'), baseline.name, arm.name],
				rows: [
					...owners.map((owner) => ({
						cells: [partName(owner, words), bytes(owner.before), bytes(owner.after)],
						bars: [null, owner.before / most, owner.after / most]
					})),
					{ cells: [words.say('report.weight.all'), bytes(all('before')), bytes(all('after'))] }
				]
			}
		];
	});
	return tables.length
		? { kind: 'tables', tables, about: words.say('report.weight.about') }
		: missing(material, 'weight');
};

const MOST_FILES = 6;

export const brokeBlock: TrialBlock = (material, trial) => {
	if (!trial.evidence) return missing(material, 'evidence');
	const { words } = material;
	const groups = comparedIn(trial).flatMap(({ title, arm, evidence }) => {
		if (!evidence) return [];
		const { newErrors, newFailures, steps, vanished, broken } = evidence.regressions;
		const parts = [
			...(steps.failed ? [words.say('report.broke.step', { step: steps.failed })] : []),
			...(newErrors.length ? [words.say('report.broke.errors', { n: newErrors.length })] : []),
			...(newFailures.length ? [words.say('report.broke.requests', { n: newFailures.length })] : [])
		];
		const hasSteps = steps.after[1] > 0;
		const line = broken
			? words.say('report.broke.some', { arm: arm.name, parts: words.list(parts) })
			: words.say('report.broke.none', { steps: hasSteps ? 'yes' : 'no' });
		const gone = vanished.length
			? [words.say('report.broke.vanished', { files: words.list(vanished.slice(0, MOST_FILES)) })]
			: [];
		return [{ title, lines: [line, ...gone] }];
	});
	return groups.length ? { kind: 'lines', groups } : missing(material, 'evidence');
};

export const worthBlock: TrialBlock = (material, trial) => {
	const { words } = material;
	const groups = comparedIn(trial).flatMap(({ title, condition, baseline, arm }) => {
		const results = trial.judgement.results.filter((result) => result.condition === condition && result.arm === arm.id);
		const putOff = trial.putOffOf(condition, arm.id, results).map(({ metric }) => metric);
		const { monthlyCost, hours } = worthOf(results, baseline, arm, { putOff, currency: material.currency });
		if (monthlyCost === null && hours === null) return [];
		const named = results.filter(({ primary, metric }) => primary && metric !== 'score');
		const standing = named.filter(({ metric }) => !putOff.includes(metric));
		const better = standing.filter(({ verdict }) => verdict === 'better');
		const worse = standing.filter(({ verdict }) => verdict === 'worse');
		const later = named.filter(({ metric }) => putOff.includes(metric));
		const say = (key: 'gains' | 'loses' | 'later', which: typeof named) =>
			which.length ? [words.say(`report.worth.${key}`, { arm: arm.name, metrics: plainList(which, words) })] : [];
		const outcome = [...say('gains', better), ...say('loses', worse), ...say('later', later)];
		const lines = outcome.length ? outcome : [words.say('report.worth.none', { arm: arm.name })];
		return [{ title, lines: [...lines, priceLine(material, monthlyCost, hours)] }];
	});
	return groups.length ? { kind: 'lines', groups } : missing(material, 'prices');
};

function priceLine({ words, currency }: Material, cost: number | null, hours: number | null): string {
	const monthly = cost
		? [
				words.say('report.worth.cost', {
					amount: wordMoney(Math.abs(cost), currency, words.language),
					direction: cost > 0 ? 'more' : 'less'
				})
			]
		: [];
	const work = hours !== null && hours > 0 ? [words.say('report.worth.hours', { hours })] : [];
	const price = listOf([...monthly, ...work], words);
	return price ? words.say('report.worth.price', { price }) : words.say('report.worth.free');
}

export const methodBlock: TrialBlock = (material, trial) => {
	const { words } = material;
	const { design, loads, judgement } = trial;
	const counted = countedLoads(design, loads);
	const rounds = new Set(counted.map(({ round }) => round)).size;
	const level = (judgement.results[0]?.level ?? 0.95) * 100;
	const margins = design.primary.map((metric) => {
		const { absolute, relative } = design.margins?.[metric] ?? metricOf(metric).margin;
		const size = wordUnit(metricOf(metric).unit, absolute, words, true);
		const share =
			relative > 0 ? ` / ${localNumber(String(Number((relative * 100).toFixed(1))), words.language)} %` : '';
		return `${boardName(metric, words).toLowerCase()} ${size}${share}`;
	});
	const about = words.say(hasStages(design.kind) ? 'report.method.stages' : 'report.method.loads', {
		rounds,
		loads: counted.length
	});
	return {
		kind: 'lines',
		groups: [
			{
				title: words.say('report.method.question', { question: trial.trial.question }),
				lines: [
					about,
					words.say('report.method.margin', { margins: margins.join('; ') }),
					words.say('report.method.interval', { level: localNumber(String(Number(level.toFixed(1))), words.language) }),
					words.say('report.method.undecided'),
					...design.conditions.map((conditions) => conditionsLine(material, conditions)),
					words.say('report.method.recipe', { recipe: judgement.recipe, judge: JUDGE_VERSION })
				]
			},
			...termsOf(material, design.primary)
		]
	};
};

function conditionsLine({ words }: Material, conditions: Conditions): string {
	const { device, network, name } = conditions;
	const mbit = (kbps: number) => localNumber(String(Number((kbps / 1000).toFixed(1))), words.language);
	return words.say('report.method.conditions', {
		name,
		width: device.width,
		height: device.height,
		touch: device.touch ? 'yes' : 'no',
		roundTrip: Math.round(roundTripOf(conditions)),
		down: mbit(network.downKbps),
		up: mbit(network.upKbps),
		isSlowed: device.targetSpeed === null ? 'no' : 'yes',
		cache: conditions.cache
	});
}

const TERMS = ['score', 'lcp', 'cls', 'tbt', 'wire', 'inp', 'ttfb', 'fcp'] as const;

/** What the metrics that the trial decides on are, for whoever does not know them. */
function termsOf({ words }: Material, metrics: readonly MetricId[]) {
	const lines = TERMS.filter((term) => metrics.includes(term)).map((term) => words.say(`report.term.${term}`));
	return lines.length ? [{ title: words.say('report.method.terms'), lines }] : [];
}
