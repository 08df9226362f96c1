/** What a crawl or a sitemap found. */
import type { GatherProblem } from '$core/pages/gathering';
import type { FoundPage } from './queries/changes';

export interface Gathered {
	pages: FoundPage[];
	files: number;
	/** Addresses that were left aside. */
	left: { foreign: number; bad: number; over: number };
	problems: GatherProblem[];
}
