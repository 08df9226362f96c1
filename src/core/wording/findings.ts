/** What an audit found, in words: title, detail, advice and when it is done. */
import type { Cause } from '../findings/causes';
import { RULES, type Effort, type Finding, type Limit, type Mender, type RuleId } from '../findings/finding';
import type { Way } from '../findings/shortestWay';
import type { StepFate } from '../findings/stepEvidence';
import type { Fate } from '../findings/since';
import { metricOf, type MetricId } from '../metrics/catalogue';
import { wordLifetime, type CacheLifetime } from '../load/requests/delivery';
import { formatBytes, formatDuration, formatIn } from './format';
import { findings } from './messages/findings';
import type { ReportedFindingKey } from './messages/findingsEs';
import { wordsFrom, type Language, type Words } from './words';

type FindingKey = keyof typeof findings;
const WORDS: Words<FindingKey> = wordsFrom('en', findings);
/** What reports say of findings, in their language. */
export type FindingWords = Words<ReportedFindingKey>;

export interface DescribedFinding {
	title: string;
	detail: string;
	/** Steps, in order. */
	advice: string[];
	/** What must hold when it is done. */
	doneWhen: string;
}

type Described = Pick<Finding, 'rule' | 'resource' | 'values' | 'limit'>;

/** @param words of another language than the screens' */
export function describeFinding(finding: Described, words: FindingWords = WORDS): DescribedFinding {
	const { rule } = finding;
	const values = valuesOf(finding, words.language);
	return {
		title: words.say(`finding.${rule}`, values),
		detail: words.say(`finding.${rule}.detail`, values),
		advice: words.say(`finding.${rule}.advice`).split(' | '),
		doneWhen: limitWords(finding.limit, words)
	};
}

/** Which values of a rule are which: the words print them with their unit. */
const TIMES = /Ms$|^ms$|^connecting$/;
const SIZES = new Set(['bytes', 'saved', 'largest', 'left']);
const SHARES = new Set(['share']);

const LIFETIMES_ES: Readonly<Record<string, string>> = {
	year: 'año',
	month: 'mes',
	day: 'día',
	hour: 'hora',
	minute: 'minuto',
	second: 'segundo',
	months: 'meses'
};

/** "7 days", "7 días". */
function lifetimeIn(seconds: number, language: Language): string {
	const told = wordLifetime(lifetimeOf(seconds));
	if (language === 'en') return told;
	return told.replace(/[a-z]+$/, (unit) => LIFETIMES_ES[unit] ?? `${LIFETIMES_ES[unit.replace(/s$/, '')] ?? unit}s`);
}

function valuesOf({ resource, values }: Described, language: Language): Record<string, string | number> {
	const printed = Object.entries(values).map(([name, value]) => [name, printedAs(name, value)] as const);
	return {
		resource: shortName(resource),
		...Object.fromEntries(printed),
		...('seconds' in values
			? { kept: values.seconds === 0 ? 'no' : 'yes', lifetime: lifetimeIn(Number(values.seconds), language) }
			: {}),
		// Chosen by the number, printed with its unit.
		...('tailMs' in values
			? {
					threadMs: values.threadMs!,
					threadWords: formatDuration(Number(values.threadMs)),
					tailMs: values.tailMs!,
					tailWords: formatDuration(Number(values.tailMs))
				}
			: {})
	};
}

function printedAs(name: string, value: string | number): string | number {
	if (typeof value === 'string') {
		if (value === '') return 'none';
		return /^https?:/.test(value) ? shortAddress(value) : value;
	}
	if (TIMES.test(name)) return formatDuration(value);
	if (SIZES.has(name)) return formatBytes(value);
	if (SHARES.has(name)) return percent(value);
	if (name === 'shift') return formatIn('unitless', value);
	if (name === 'times') return Number(value.toFixed(1));
	return value;
}

const percent = (share: number) => `${Math.round(share * 100)}\u00a0%`;

const lifetimeOf = (seconds: number): CacheLifetime =>
	seconds > 0 ? { kind: 'fresh', seconds } : { kind: 'revalidate', seconds: 0 };

/** A file by its last part, with its host where that is not told otherwise. */
export function shortName({ kind, name }: Finding['resource']): string {
	if (kind === 'address') return shortAddress(name);
	return kind === 'selector' ? name.split(' > ').slice(-2).join(' > ') : name;
}

const MOST_LENGTH = 60;
/** Names of files shorter than this stand with their folder (house). */
const SHORT = 8;

function shortAddress(url: string): string {
	if (!URL.canParse(url)) return url.slice(0, MOST_LENGTH);
	const { host, pathname } = new URL(url);
	const parts = pathname.split('/').filter(Boolean);
	const last = parts.at(-1) ?? '';
	// “1.jpg” is many files: its folder tells which.
	const told = last.length < SHORT && parts.length > 1 ? `${parts.at(-2)}/${last}` : last;
	const name = told ? decoded(told) : host;
	return name.length > MOST_LENGTH ? `${name.slice(0, MOST_LENGTH - 1)}…` : name;
}

/** An address may hold what is no text. */
function decoded(part: string): string {
	try {
		return decodeURIComponent(part);
	} catch {
		return part;
	}
}

function limitWords({ most, unit }: Limit, words: FindingWords): string {
	if (most === 0) return words.say('finding.limit.gone');
	const printed = {
		ms: () => formatDuration(most),
		bytes: () => formatBytes(most),
		share: () => percent(most),
		times: () => `${most} times the pixels`,
		count: () => String(most),
		unitless: () => formatIn('unitless', most)
	}[unit]();
	return words.say('finding.limit.most', { most: printed });
}

export const wordMender = (who: Mender, words: FindingWords = WORDS): string => words.say(`finding.who.${who}`);
export const wordEffort = (effort: Effort, words: FindingWords = WORDS): string =>
	words.say(`finding.effort.${effort}`);
/** "2 findings gone (picture too large, text hidden), 1 new (…), 5 left"; empty where there is nothing to tell. */
export function wordStepFates(fates: readonly StepFate[]): string {
	const said = (['gone', 'new', 'left'] as const).flatMap((fate) => {
		const own = fates.filter((candidate) => candidate.fate === fate);
		const keys = new Set(own.map(({ rule, resource }) => `${rule}/${resource}`));
		if (!keys.size) return [];
		const rules = [...new Set(own.map(({ rule }) => ruleName(rule)))].join(', ');
		return [WORDS.say(`finding.step.${fate}`, { n: keys.size, rules })];
	});
	return said.length ? WORDS.say('finding.step', { parts: said.join('; ') }) : '';
}

export const wordFate = (fate: Fate): string => WORDS.say(`finding.fate.${fate}`);

/** @param check a check of the head */
export const wordHeadCheck = (check: string, words: FindingWords = WORDS): string =>
	words.say(`side.${check}` as ReportedFindingKey);

/** "on 5 of 6 pages, 62 % of visits, in 36 of 36 loads" */
export function describeReach(
	{ pages, visits, seen }: Pick<Cause, 'pages' | 'visits' | 'seen'>,
	words: FindingWords = WORDS
): string {
	return [
		words.say('cause.pages', { k: pages.k, m: pages.m }),
		visits === null ? '' : words.say('cause.visits', { visits: percent(visits) }),
		words.say('cause.loads', { ...seen })
	].join('');
}

/** Why a cause stands where it does; empty for causes from before. */
export function wordRank({ size, hurts, visits, pages, rule }: Cause): string {
	if (size === undefined) return '';
	return WORDS.say('cause.rank', {
		size: size < 10 ? Number(size.toFixed(1)) : Math.round(size),
		n: size,
		hurts: hurts === null ? 'none' : metricOf(hurts).short,
		reach:
			visits === null
				? WORDS.say('cause.rank.pages', { k: pages.k, m: pages.m })
				: WORDS.say('cause.rank.visits', { visits: percent(visits) }),
		effort: RULES[rule].effort
	});
}

/** @param types of the audited pages: of each how many have it, of how many */
export const wordTypes = (types: readonly { type: string; k: number; m: number }[]): string =>
	types.map((own) => WORDS.say('cause.type', { ...own })).join(', ');

/** @param way null where it is not reached @param titles of its causes */
export function wordWay(way: Pick<Way, 'isSmallest'> | null, titles: readonly string[], pages: number): string {
	if (!way) return WORDS.say('way.none', { pages });
	return WORDS.say('way.found', {
		causes: titles.map((title) => `“${title}”`).join(', '),
		isOne: titles.length === 1 ? 'yes' : 'no',
		pages,
		isSmallest: way.isSmallest ? 'yes' : 'no'
	});
}

/** Metrics that miss their target and whose way is not known. */
export const wordNoWay = (metrics: readonly MetricId[]): string =>
	WORDS.say('way.unknown', { metrics: metrics.map((id) => metricOf(id).short).join(', ') });

/** What a rule is called where nothing is measured yet, as in a filter. */
export const ruleName = (rule: RuleId): string => rule.replaceAll('-', ' ');
