/** What an audit found, in words: title, detail, advice and when it is done. */
import type { Cause } from '../findings/causes';
import type { Effort, Finding, Limit, Mender, RuleId } from '../findings/finding';
import type { StepFate } from '../findings/stepEvidence';
import type { Fate } from '../findings/since';
import { wordLifetime, type CacheLifetime } from '../load/requests/delivery';
import { formatBytes, formatDuration, formatIn } from './format';
import { findings } from './messages/findings';
import { wordsFrom, type Words } from './words';

type FindingKey = keyof typeof findings;
const WORDS: Words<FindingKey> = wordsFrom('en', findings);

export interface DescribedFinding {
	title: string;
	detail: string;
	/** Steps, in order. */
	advice: string[];
	/** What must hold when it is done. */
	doneWhen: string;
}

type Described = Pick<Finding, 'rule' | 'resource' | 'values' | 'limit'>;

export function describeFinding(finding: Described): DescribedFinding {
	const { rule } = finding;
	const values = valuesOf(finding);
	return {
		title: WORDS.say(`finding.${rule}`, values),
		detail: WORDS.say(`finding.${rule}.detail`, values),
		advice: WORDS.say(`finding.${rule}.advice`).split(' | '),
		doneWhen: limitWords(finding.limit)
	};
}

/** Which values of a rule are which: the words print them with their unit. */
const TIMES = /Ms$|^ms$|^connecting$/;
const SIZES = new Set(['bytes', 'saved', 'largest', 'left']);
const SHARES = new Set(['share']);

function valuesOf({ resource, values }: Described): Record<string, string | number> {
	const printed = Object.entries(values).map(([name, value]) => [name, printedAs(name, value)] as const);
	return {
		resource: shortName(resource),
		...Object.fromEntries(printed),
		...('seconds' in values
			? { kept: values.seconds === 0 ? 'no' : 'yes', lifetime: wordLifetime(lifetimeOf(Number(values.seconds))) }
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

function shortAddress(url: string): string {
	if (!URL.canParse(url)) return url.slice(0, MOST_LENGTH);
	const { host, pathname } = new URL(url);
	const last = pathname.split('/').filter(Boolean).at(-1);
	const name = last ? decoded(last) : host;
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

function limitWords({ most, unit }: Limit): string {
	if (most === 0) return WORDS.say('finding.limit.gone');
	const printed = {
		ms: () => formatDuration(most),
		bytes: () => formatBytes(most),
		share: () => percent(most),
		times: () => `${most} times the pixels`,
		count: () => String(most),
		unitless: () => formatIn('unitless', most)
	}[unit]();
	return WORDS.say('finding.limit.most', { most: printed });
}

export const wordMender = (who: Mender): string => WORDS.say(`finding.who.${who}`);
export const wordEffort = (effort: Effort): string => WORDS.say(`finding.effort.${effort}`);
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
export const wordHeadCheck = (check: string): string => WORDS.say(`side.${check}` as FindingKey);

/** "on 5 of 6 pages, 62 % of visits, in 36 of 36 loads" */
export function describeReach({ pages, visits, seen }: Pick<Cause, 'pages' | 'visits' | 'seen'>): string {
	return [
		WORDS.say('cause.pages', { k: pages.k, m: pages.m }),
		visits === null ? '' : WORDS.say('cause.visits', { visits: percent(visits) }),
		WORDS.say('cause.loads', { ...seen })
	].join('');
}

/** What a rule is called where nothing is measured yet, as in a filter. */
export const ruleName = (rule: RuleId): string => rule.replaceAll('-', ' ');
