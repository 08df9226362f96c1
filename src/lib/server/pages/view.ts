/** Pages of a site as the screen and `GET /api/sites/:id/pages` show them: the list, the choice, and what it covers. */
import { coverageOf, nextPage, proposeSample, QUIET_VISITS, WANTED_SHARE } from '$core/pages/coverage';
import { PAGE_TYPES, type SitePage } from '$core/pages/page';
import { describeGathering, describeGatherProblem } from '$core/wording/gathering';
import type { Site } from '../clients/sites';
import type { Db } from '../db/connection';
import { findGathering, findProposals, isGathering } from './gathering';
import { countPages, listPages, pagesToChoose, typesOfSite, type PageFilter } from './queries';

/** Rows of a page of the list. */
export const ROWS = 25;

/** What the chosen pages of a site stand for, what one more would add, and a choice that is enough. */
export function sampleView(db: Db, { id, restVisits }: Pick<Site, 'id' | 'restVisits'>) {
	const pages = pagesToChoose(db, id);
	const chosen = new Set(pages.filter((page) => page.chosen).map((page) => page.id));
	const proposal = proposeSample(pages, { rest: restVisits });
	const isProposed = proposal.length === chosen.size && proposal.every((page) => chosen.has(page));
	return {
		all: pages.length,
		hasTraffic: pages.some(({ visits }) => visits !== null),
		wanted: WANTED_SHARE,
		quietBelow: QUIET_VISITS,
		coverage: coverageOf(pages, chosen, restVisits),
		next: nextView(pages, chosen, restVisits),
		proposal:
			isProposed || !proposal.length
				? null
				: { ids: proposal, coverage: coverageOf(pages, new Set(proposal), restVisits) }
	};
}

export type SampleView = ReturnType<typeof sampleView>;

function nextView(pages: readonly SitePage[], chosen: ReadonlySet<number>, rest: number) {
	const next = nextPage(pages, chosen, rest);
	return next && { ...next, url: pages.find(({ id }) => id === next.id)!.url };
}

/** @param page from 1; one beyond the last shows the last */
export function pagesView(db: Db, site: Site, filter: Omit<PageFilter, 'siteId'>, page: number) {
	const asked = { siteId: site.id, ...filter };
	const total = countPages(db, asked);
	const pages = Math.max(1, Math.ceil(total / ROWS));
	const shown = Math.min(pages, Math.max(1, Math.trunc(page) || 1));
	const types = typesOfSite(db, site.id);
	return {
		total,
		page: shown,
		pages,
		rows: listPages(db, asked, ROWS, (shown - 1) * ROWS),
		types,
		typeNames: [...new Set([...types.flatMap(({ type }) => type ?? []), ...PAGE_TYPES])],
		sample: sampleView(db, site),
		proposals: proposalsView(db, site.id),
		gathering: gatheringView(db, site.id)
	};
}

export type PagesView = ReturnType<typeof pagesView>;

function proposalsView(db: Db, siteId: number) {
	const proposals = findProposals(db, siteId);
	if (!proposals.length) return [];
	const open = new Map(
		pagesToChoose(db, siteId)
			.filter(({ type }) => type === null)
			.map(({ id, url }) => [id, url])
	);
	return proposals
		.map(({ type, by, pages }) => ({ type, by, ids: pages.filter((id) => open.has(id)) }))
		.filter(({ ids }) => ids.length > 0)
		.map(({ ids, ...rest }) => ({ ...rest, pages: ids.length, examples: ids.slice(0, 3).map((id) => open.get(id)!) }));
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
