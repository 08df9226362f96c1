/** How much of a site a choice of pages stands for: page types and traffic; and the smallest choice that is enough. */
import { sum } from 'd3-array';
import type { SitePage } from './page';

/** Share of visits that a proposal wants (house). */
export const WANTED_SHARE = 0.8;
/** More pages than these are no sample any more (house): types may still force more. */
export const MOST_PAGES = 12;
/** A page with fewer visits a month is often too quiet for field data (practice; no panel publishes its own number). */
export const QUIET_VISITS = 1000;

export interface Coverage {
	pages: number;
	/** Page types with a page among the chosen, and all that the site has. */
	types: { covered: number; all: number; missing: string[] };
	/** Share of the site's visits that goes to the chosen pages, 0 to 1; null without traffic figures. */
	traffic: number | null;
	/** Share of the site's visits that goes to pages of the covered types; null without traffic figures. */
	typeTraffic: number | null;
	/** Chosen pages whose visits are known and too few for field data. */
	quiet: number;
}

type Countable = Pick<SitePage, 'id' | 'type' | 'visits'>;

const visitsOf = (page: Countable) => page.visits ?? 0;
const isQuiet = ({ visits }: Countable) => visits !== null && visits < QUIET_VISITS;

/** Visits of the site to pages that are not in a list. */
export interface Remainder {
	/** All of them. */
	visits: number;
	/** Those to pages of a type, and which types there are. */
	byType: ReadonlyMap<string, number>;
}

const NO_REMAINDER: Remainder = { visits: 0, byType: new Map() };

/** @param pages all of the site, or those that matter for a choice: all chosen ones, and the busiest */
export function coverageOf(
	pages: readonly Countable[],
	chosen: ReadonlySet<number>,
	rest: Remainder = NO_REMAINDER
): Coverage {
	const own = pages.filter(({ id }) => chosen.has(id));
	const all = new Set([...typesOf(pages), ...rest.byType.keys()]);
	const covered = typesOf(own);
	const total = sum(pages, visitsOf) + rest.visits;
	const share = (visits: number) => (total > 0 ? visits / total : null);
	const ofTypes = sum(
		pages.filter(({ type }) => type !== null && covered.has(type)),
		visitsOf
	);
	return {
		pages: own.length,
		types: { covered: covered.size, all: all.size, missing: [...all].filter((type) => !covered.has(type)).sort() },
		traffic: share(sum(own, visitsOf)),
		typeTraffic: share(ofTypes + sum(covered, (type) => rest.byType.get(type) ?? 0)),
		quiet: own.filter(isQuiet).length
	};
}

function typesOf(pages: readonly Countable[]): Set<string> {
	return new Set(pages.flatMap(({ type }) => type ?? []));
}

/** Most visits first; then the shorter way to tell: the page known longer. */
const byVisits = (a: Countable, b: Countable) => visitsOf(b) - visitsOf(a) || a.id - b.id;

/**
 * The smallest set of pages that holds a page of every type and at least a share of the visits, where that is possible
 * with no more pages than `most` (types may force more).
 *
 * Among the sets of k pages that cover all types none has more visits than the busiest page of each type together
 * with the busiest others: exchanging a page for the busiest of its type, or an additional page for a busier one,
 * never takes a type or a visit away. So taking them in that order until the share is reached gives the smallest set.
 * (This is the greedy algorithm on a matroid: Edmonds 1971.)
 */
export function proposeSample(
	pages: readonly Countable[],
	{ wanted = WANTED_SHARE, most = MOST_PAGES, rest = 0 }: { wanted?: number; most?: number; rest?: number } = {}
): number[] {
	const ordered = [...pages].sort(byVisits);
	const first = new Map<string, Countable>();
	for (const page of ordered) if (page.type !== null && !first.has(page.type)) first.set(page.type, page);
	const sample = [...first.values()];
	const goal = wanted * (sum(pages, visitsOf) + rest);
	const taken = new Set(sample.map(({ id }) => id));
	let reached = sum(sample, visitsOf);
	for (const page of ordered) {
		if (reached >= goal || sample.length >= most) break;
		if (taken.has(page.id) || visitsOf(page) === 0) continue;
		sample.push(page);
		reached += visitsOf(page);
	}
	return sample.sort(byVisits).map(({ id }) => id);
}

export interface NextPage {
	id: number;
	/** A type that no chosen page has yet. */
	newType: string | null;
	/** Share of the visits that it adds; null without traffic figures. */
	addedTraffic: number | null;
}

/** What one more page would add: a missing type first, else the most visits; null when nothing would. */
export function nextPage(pages: readonly Countable[], chosen: ReadonlySet<number>, rest = 0): NextPage | null {
	const covered = typesOf(pages.filter(({ id }) => chosen.has(id)));
	const others = pages.filter(({ id }) => !chosen.has(id)).sort(byVisits);
	const isNew = ({ type }: Countable) => type !== null && !covered.has(type);
	const best = others.find(isNew) ?? others[0];
	if (!best || (!isNew(best) && visitsOf(best) === 0)) return null;
	const total = sum(pages, visitsOf) + rest;
	return {
		id: best.id,
		newType: isNew(best) ? best.type : null,
		addedTraffic: total > 0 ? visitsOf(best) / total : null
	};
}
