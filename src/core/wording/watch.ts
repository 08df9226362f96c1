/** Watches, their changes and standings in words. For the server and the rooms of watches: not part of every screen. */
import type { Metric } from '../metrics/catalogue';
import { metricOf } from '../metrics/catalogue';
import type { Practice, PracticeCell } from '../standings/practices';
import type { Ranked } from '../standings/ranks';
import type { Break } from '../watch/breaks';
import type { Change } from '../watch/history';
import type { Setting, SettingPart } from '../watch/reading';
import type { Schedule } from '../watch/schedule';
import type { PageTrouble } from '../watch/trouble';
import type { Verdict } from '../trial/types';
import { changeResult } from '../watch/since';
import { boardRow } from './board';
import { formatDay, formatDifference } from './format';
import { watch, type WatchKey } from './messages/watch';
import { improved } from './judged';
import { plainName } from './plainNames';
import { wordsFrom, type Words } from './words';

export const WATCH_WORDS: Words<WatchKey> = wordsFrom('en', watch);

const dayOf = (iso: string) => formatDay(iso.slice(0, 10));

/** Those that a sentence may call a change: what is decided; else what differs, perhaps too little; else what moved. */
function toldOf(changes: readonly Change[]): readonly Change[] {
	const withVerdict = (...verdicts: Verdict[]) => changes.filter(({ verdict }) => verdicts.includes(verdict));
	return [withVerdict('better', 'worse'), withVerdict('slight'), changes].find((listed) => listed.length) ?? [];
}

/** What changed, in one line: "Largest paint and score of /booking (phone) got worse". */
export function titleOfChanges(changes: readonly Change[], page: string, condition: string): string {
	const listed = toldOf(changes);
	const verdicts = new Set(listed.map(({ verdict }) => verdict));
	const directions = new Set(listed.map((change) => (verdicts.has('slight') ? improved(change) : null)));
	const slight = [...directions][0] ? 'slightBetter' : 'slightWorse';
	const isOne = verdicts.size === 1 && directions.size === 1;
	const gains = isOne ? (verdicts.has('slight') ? slight : [...verdicts][0]!) : 'mixed';
	const names = listed.map(({ metric }) => (metric === 'wire' ? 'bytes' : plainName(metric)));
	const metrics = WATCH_WORDS.list(names);
	const said = WATCH_WORDS.say('change.title', { metrics, page, condition, gains });
	return said.charAt(0).toUpperCase() + said.slice(1);
}

/** Names of the two sides of a step. */
export const STEP_SIDES = { baseline: 'before', arm: 'after' };

/** Each figure with its interval: how much, and how sure of the size. */
export const figuresOfChanges = (changes: readonly Change[]): string[] =>
	toldOf(changes).map((change) => boardRow(changeResult(change), STEP_SIDES).text);

const MOST_CAUSES = 2;

/** Why, and whether the lab's own drift is taken off. @param causes in sentences, likeliest first */
export function reasonsOfChanges(changes: readonly Change[], causes: readonly string[]): string[] {
	const listed = causes.slice(0, MOST_CAUSES).map((cause) => WATCH_WORDS.say('change.cause', { cause }));
	const isCorrected = changes.every((change) => change.isCorrected);
	return [
		...(listed.length ? listed : [WATCH_WORDS.say('change.no-cause')]),
		WATCH_WORDS.say(isCorrected ? 'change.corrected' : 'change.uncorrected')
	];
}

/** Where no step was called: that none was found, or that none could be. @param missing readings before one can be */
export function describeQuiet(missing: number): string {
	return missing > 0 ? WATCH_WORDS.say('change.too-few', { more: missing }) : WATCH_WORDS.say('change.none');
}

export const howSure = (): string => WATCH_WORDS.say('change.sure');

/**
 * @param before, after UTC ISO of the readings on both sides of it
 * @param grewUntil where it went on in the same direction
 */
export function whenOfChange(before: string, after: string, grewUntil: string | null = null): string {
	const when = WATCH_WORDS.say('change.when', { from: dayOf(before), until: dayOf(after) });
	return grewUntil ? WATCH_WORDS.say('change.grew', { when, until: dayOf(grewUntil) }) : when;
}

/** Whether what came before still counts, and how. */
export function titleOfBreak({ parts, control }: Pick<Break, 'parts' | 'control'>): string {
	const names = WATCH_WORDS.list(parts.map((part) => WATCH_WORDS.say(`break.${part}`)));
	const isBridged = control.length > 0 && parts.every((part) => part === 'browser' || part === 'lab');
	return WATCH_WORDS.say(isBridged ? 'break.bridged' : 'break.title', { parts: names });
}

const SHOWN: readonly SettingPart[] = ['browser', 'recipe', 'lab'];

/** "Chromium 140 to Chromium 141", for what a person can read. */
export function describeParts({
	parts,
	from,
	to
}: {
	parts: readonly SettingPart[];
	from: Setting;
	to: Setting;
}): string {
	return parts
		.filter((part) => SHOWN.includes(part))
		.map((part) => WATCH_WORDS.say('break.from-to', { from: from[part], to: to[part] }))
		.join('; ');
}

/** How much of a difference over a change of the lab is the lab's. */
export function describeControl(control: Break['control'], metrics: readonly Metric['id'][]): string {
	const shifts = control
		.filter(({ metric }) => metrics.includes(metric))
		.map(({ metric, from, to }) => `${formatDifference(metric, to - from)} ${metricOf(metric).short}`);
	return shifts.length
		? WATCH_WORDS.say('break.control', { shifts: WATCH_WORDS.list(shifts) })
		: WATCH_WORDS.say('break.no-control');
}

const GONE = [404, 410];
const REASONS = ['http-status', 'unresolvable', 'refused', 'certificate', 'time-out', 'download'] as const;

/** What is wrong with a page, most telling first. */
export function describeTrouble({ failed, redirectedTo, asksWhoOneIs, likeness }: PageTrouble): string {
	const gone = failed.find(({ status }) => status !== null && GONE.includes(status));
	if (gone) return WATCH_WORDS.say('trouble.gone', { status: gone.status! });
	if (asksWhoOneIs) return WATCH_WORDS.say('trouble.login');
	if (redirectedTo) return WATCH_WORDS.say('trouble.redirected', { url: redirectedTo });
	// Missing in troubles from before it was known.
	if (!failed.length && (likeness ?? null) !== null)
		return WATCH_WORDS.say('trouble.rebuilt', { share: Math.round(likeness! * 100) });
	const most = [...failed].sort((a, b) => b.loads - a.loads)[0];
	if (!most) return '';
	const code = REASONS.find((reason) => reason === most.code) ?? 'other';
	const reason = WATCH_WORDS.say(`trouble.reason.${code}`, { status: most.status ?? 0 });
	return WATCH_WORDS.say('trouble.failed', { loads: most.loads, reason });
}

export const describeSchedule = ({ every, pattern }: Schedule): string =>
	WATCH_WORDS.say(`schedule.${every}`, { pattern });

/** "first or second of four", "third of four". @param all pages that were measured */
export function describeRank({ from, to }: Pick<Ranked, 'from' | 'to'>, all: number): string {
	if (from === null || to === null) return WATCH_WORDS.say('rank.none');
	const place = (n: number) => WATCH_WORDS.say('rank.place', { n });
	const withVerdict = WATCH_WORDS.say('number', { n: all });
	if (from === to) return WATCH_WORDS.say('rank.sole', { place: place(from), all: withVerdict });
	const range = { from: place(from), to: place(to), all: withVerdict };
	return WATCH_WORDS.say(to === from + 1 ? 'rank.pair' : 'rank.range', range);
}

export const describePractice = (practice: Practice): string => WATCH_WORDS.say(`practice.${practice}`);

export function describeCell({ practice, state, values }: Pick<PracticeCell, 'practice' | 'state' | 'values'>): string {
	if (state === 'none') return WATCH_WORDS.say(practice === 'late' ? 'cell.not-seen' : 'cell.none');
	return WATCH_WORDS.say(`cell.${practice}`, values);
}
