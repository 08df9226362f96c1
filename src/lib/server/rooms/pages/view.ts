/** Pages of a site as the screen and `GET /api/sites/:id/pages` show them: the list, the choice, and what it covers. */
import { sum } from 'd3-array';
import {
	coverageOf,
	MOST_PAGES,
	nextPage,
	proposeSample,
	QUIET_VISITS,
	WANTED_SHARE,
	type Remainder
} from '$core/pages/coverage';
import { PAGE_TYPES, type SitePage } from '$core/pages/page';
import { cacheStateOf, countCached } from '$core/pages/settling';
import {
	describeCacheCount,
	describeGathering,
	describeGatherProblem,
	describePageAsked
} from '$core/wording/gathering';
import type { Db } from '../../base/db/connection';
import { findGathering, isGathering } from './gathering';
import { findSettling } from './settling';
import { findProposals } from './proposals';
import { candidatesOf, countPages, listPages, typesOfSite, type PageFilter, type TypeCount } from './queries/pages';
import { conditionNames } from '../conditions/saved';
import type { Site } from '../clients/view';

export { hostLookOf } from './hostLook';
export { chooseOnly, savePages } from './queries/changes';
export {
	type PageRow,
	anyPageWithUrl,
	checkPage,
	existingPage,
	findPage,
	knownAddresses,
	listPages,
	pagesToChoose,
	pageWithUrl
} from './queries/pages';

/** Rows of a page of the list. */
export const ROWS = 25;

/** What the chosen pages of a site stand for, what one more would add, and a choice that is enough. */
export function sampleView(db: Db, { id, restVisits }: Pick<Site, 'id' | 'restVisits'>, types = typesOfSite(db, id)) {
	const pages = candidatesOf(db, id, types, MOST_PAGES + 1);
	const rest = remainderOf(pages, types, restVisits);
	const chosen = new Set(pages.filter((page) => page.chosen).map((page) => page.id));
	const proposal = proposeSample(pages, { rest: rest.visits });
	const isProposed = proposal.length === chosen.size && proposal.every((page) => chosen.has(page));
	return {
		all: sum(types, (type) => type.pages),
		hasTraffic: types.some(({ counted }) => counted > 0),
		wanted: WANTED_SHARE,
		quietBelow: QUIET_VISITS,
		coverage: coverageOf(pages, chosen, rest),
		next: nextView(pages, chosen, rest.visits),
		proposal:
			isProposed || !proposal.length ? null : { ids: proposal, coverage: coverageOf(pages, new Set(proposal), rest) }
	};
}

export type SampleView = ReturnType<typeof sampleView>;

/** Visits to pages that are no candidates: of each type, and of the site. */
function remainderOf(pages: readonly SitePage[], types: readonly TypeCount[], restVisits: number): Remainder {
	const visitsOf = (type: string | null) =>
		sum(
			pages.filter((page) => page.type === type),
			({ visits }) => visits ?? 0
		);
	const left = types.map(({ type, visits }) => [type, visits - visitsOf(type)] as const);
	const byType = new Map(left.flatMap(([type, visits]) => (type === null ? [] : [[type, visits] as const])));
	return { visits: restVisits + sum(left, ([, visits]) => visits), byType };
}

function nextView(pages: readonly SitePage[], chosen: ReadonlySet<number>, rest: number) {
	const next = nextPage(pages, chosen, rest);
	return next && { ...next, url: pages.find(({ id }) => id === next.id)!.url };
}

/** @param page from 1; one beyond the last shows the last */
export function pagesView(db: Db, site: Site, filter: Omit<PageFilter, 'siteId'>, page: number) {
	const search = { siteId: site.id, ...filter };
	const total = countPages(db, search);
	const pages = Math.max(1, Math.ceil(total / ROWS));
	const shown = Math.min(pages, Math.max(1, Math.trunc(page) || 1));
	const types = typesOfSite(db, site.id);
	return {
		total,
		page: shown,
		pages,
		rows: listPages(db, search, ROWS, (shown - 1) * ROWS),
		types,
		typeNames: [...new Set([...types.flatMap(({ type }) => type ?? []), ...PAGE_TYPES])],
		sample: sampleView(db, site, types),
		proposals: proposalsView(db, site.id),
		gathering: gatheringView(db, site.id),
		settling: settlingView(db, site.id)
	};
}

function proposalsView(db: Db, siteId: number) {
	return findProposals(db, siteId).map(({ type, by, pages, examples }) => ({
		type,
		by,
		pages: pages.length,
		examples
	}));
}

/** How gathering is going, or how the last one went; null before the first. */
export function gatheringView(db: Db, siteId: number) {
	const gathering = findGathering(db, siteId);
	if (!gathering) return null;
	return {
		words: describeGathering(gathering),
		at: gathering.at,
		isOpen: isGathering(db, siteId),
		problems: gathering.problems.map(describeGatherProblem)
	};
}

/** How many pages of the sample come from the site's cache by now; null before anybody asked. */
export function settlingView(db: Db, siteId: number) {
	const settling = findSettling(db, siteId);
	if (!settling) return null;
	const names = new Map(conditionNames(db).map(({ id, name }) => [id, name]));
	const nameOf = (condition: string) => names.get(condition) ?? condition;
	const urls = [...new Set(settling.pages.map(({ url }) => url))];
	const counts = countCached(settling.pages);
	return {
		startedAt: settling.startedAt,
		until: settling.until,
		at: settling.at,
		isOpen: !settling.isDone,
		counts: counts.map((count) => ({ ...count, words: describeCacheCount(count, nameOf(count.condition)) })),
		devices: counts.map(({ condition }) => ({ id: condition, name: nameOf(condition) })),
		pages: urls.map((url) => ({
			url,
			answers: settling.pages
				.filter((page) => page.url === url)
				.map((page) => ({
					condition: page.condition,
					state: cacheStateOf(page),
					asked: page.asked,
					words: describePageAsked(page),
					answers: page.answers
				}))
		}))
	};
}

export type SettlingView = NonNullable<ReturnType<typeof settlingView>>;
