/** How many pages of a site are served from its cache by now, as each device asks for them. */
import { ALIKE_IN_A_ROW, isStable, type FetchSeen } from '../load/requests/stability';

/** One page as one device asked for it. */
export interface PageAsked {
	pageId: number;
	url: string;
	/** Conditions under which it was asked. */
	condition: string;
	/** Newest last; at most MOST_KEPT, the first one always among them. */
	answers: FetchSeen[];
	/** How often it was asked. */
	asked: number;
}

/**
 * `cached`: a cache says that it answered. `filling`: a cache says that it did not. `silent`: no cache says a word,
 * whatever the answer's age or time. `failed`: an error, or no answer.
 */
export type CacheState = 'cached' | 'filling' | 'silent' | 'failed';

const MOST_KEPT = ALIKE_IN_A_ROW + 1;

/** @returns null before the first answer */
export function cacheStateOf({ answers }: Pick<PageAsked, 'answers'>): CacheState | null {
	const last = answers.at(-1);
	if (!last) return null;
	if (last.problem !== null || last.status === null || last.status >= 400) return 'failed';
	if (last.cache === null) return 'silent';
	return last.cache === 'hit' ? 'cached' : 'filling';
}

/** Whether asking again can tell more: a silent page is asked until its answers are alike. */
export function isOpen(page: Pick<PageAsked, 'answers'>): boolean {
	const state = cacheStateOf(page);
	return state === 'silent' ? !isStable(page.answers) : state !== 'cached';
}

/** A page with one answer more. */
export function withAnswer(page: PageAsked, answer: FetchSeen): PageAsked {
	const [first, ...later] = [...page.answers, answer];
	return { ...page, answers: [first!, ...later.slice(-(MOST_KEPT - 1))], asked: page.asked + 1 };
}

export interface CacheCount {
	condition: string;
	pages: number;
	cached: number;
	/** Of the cached ones: already at the first asking, so that asking did not fill the cache. */
	cachedBefore: number;
	silent: number;
	failed: number;
}

/** By conditions, in the order in which they are first named. */
export function countCached(pages: readonly PageAsked[]): CacheCount[] {
	return [...new Set(pages.map(({ condition }) => condition))].map((condition) => {
		const ofDevice = pages.filter((page) => page.condition === condition);
		const countOf = (state: CacheState) => ofDevice.filter((page) => cacheStateOf(page) === state).length;
		const cachedBefore = ofDevice.filter(({ answers }) => answers[0]?.cache === 'hit').length;
		return {
			condition,
			pages: ofDevice.length,
			cached: countOf('cached'),
			cachedBefore,
			silent: countOf('silent'),
			failed: countOf('failed')
		};
	});
}
