/** How gathering pages went, in sentences. */
import type { GatherProblem } from '../pages/gathering';
import { cacheStateOf, type CacheCount, type CacheState, type PageAsked } from '../pages/settling';
import { formatDuration } from './format';
import { CONFIRM_MONTHS, type RemovalReason } from '../setups/register';
import { ENGLISH } from './words';

/** What, where and what to do. */
export function describeGatherProblem({ where, fault, detail }: GatherProblem): string {
	return ENGLISH.say(`gather.${fault}`, { where, detail: /^\d*$/.test(detail) ? Number(detail) : detail });
}

export interface GatheringFacts {
	what: 'sitemap' | 'crawl' | 'types' | 'file' | 'traffic' | 'pasted';
	isDone: boolean;
	asked: number;
	found: number;
	saved: { added: number; known: number } | null;
	left: { foreign: number; bad: number; over: number } | null;
}

/** Empty for what was typed: the list itself shows it. */
export function describeGathering({ what, isDone, asked, found, saved, left }: GatheringFacts): string {
	if (what === 'pasted') return '';
	if (!isDone)
		return what === 'file' || what === 'traffic' ? '' : ENGLISH.say(`gather.doing.${what}`, { asked, found });
	const { added = 0, known = 0 } = saved ?? {};
	const rest = left ? ENGLISH.say('gather.left', { ...left }) : '';
	return `${ENGLISH.say(`gather.done.${what}`, { asked, added, known })}${rest}.`;
}

export const describeRemoval = (reasons: readonly RemovalReason[]): string =>
	reasons.map((reason) => ENGLISH.say(`removal.${reason}`, { months: CONFIRM_MONTHS })).join('; ');

const CACHE_STATES: Record<CacheState, 'settling.cached' | 'settling.filling' | 'settling.silent' | 'settling.failed'> =
	{
		cached: 'settling.cached',
		filling: 'settling.filling',
		silent: 'settling.silent',
		failed: 'settling.failed'
	};

/** "from the cache, 0.04 s; 0.41 s at first"; empty before the first answer. */
export function describePageAsked(page: Pick<PageAsked, 'answers' | 'asked'>): string {
	const state = cacheStateOf(page);
	const [first] = page.answers;
	const last = page.answers.at(-1);
	if (!state || !first || !last) return '';
	const words = ENGLISH.say(CACHE_STATES[state], { status: last.status ?? 0, problem: last.problem ?? '' });
	if (state === 'failed') return words;
	const time = formatDuration(last.tookMs ?? 0);
	if (page.asked === 1) return `${words}, ${time}`;
	return `${words}, ${time}; ${ENGLISH.say('settling.at-first', { time: formatDuration(first.tookMs ?? 0) })}`;
}

/** "9 of 14 on Phone, 4 of them before they were asked". @param device as printed */
export function describeCacheCount(count: CacheCount, device: string): string {
	return ENGLISH.say('settling.count', { ...count, device });
}
