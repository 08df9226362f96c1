/** Pairing a competitor's pages with a site's own, by page type. */
import type { SitePage } from './page';

export interface PagePair {
	type: string;
	own: string;
	ownId: number;
	/** Address of the competitor's page of that type; null where it has none. */
	others: { site: string; url: string | null; id: number | null }[];
}

type Pairable = Pick<SitePage, 'id' | 'url' | 'type' | 'visits' | 'chosen'>;

/** Of a type, a chosen page stands for it, else the busiest. */
function pageOfType(pages: readonly Pairable[], type: string): Pairable | null {
	const own = pages.filter((page) => page.type === type);
	return (
		own.sort((a, b) => Number(b.chosen) - Number(a.chosen) || (b.visits ?? 0) - (a.visits ?? 0) || a.id - b.id)[0] ??
		null
	);
}

/** A line for each type of the site's own pages, in the order of their visits. */
export function pairPages(
	own: readonly Pairable[],
	others: readonly { name: string; pages: readonly Pairable[] }[]
): PagePair[] {
	const types = [...new Set(own.flatMap(({ type }) => type ?? []))];
	return types
		.map((type) => ({ type, page: pageOfType(own, type)! }))
		.sort((a, b) => (b.page.visits ?? 0) - (a.page.visits ?? 0))
		.map(({ type, page }) => ({
			type,
			own: page.url,
			ownId: page.id,
			others: others.map(({ name, pages }) => {
				const theirs = pageOfType(pages, type);
				return { site: name, url: theirs?.url ?? null, id: theirs?.id ?? null };
			})
		}));
}
