/** Pages of a site, as choosing among them needs them. */

export type PageSource = 'sitemap' | 'traffic' | 'pasted' | 'crawl' | 'trial';

export interface SitePage {
	id: number;
	url: string;
	/** Page type: home, article, product ...; null while nobody has named it. */
	type: string | null;
	/** A month; null when not known. */
	visits: number | null;
	/** It is one of those that the client's work looks at. */
	chosen: boolean;
}

/** Types that are offered by name; any other may be typed. */
export const PAGE_TYPES = [
	'home',
	'listing',
	'product',
	'article',
	'landing',
	'booking',
	'cart',
	'contact',
	'about',
	'search',
	'legal'
] as const;
