/** What went wrong while pages of a site were gathered; worded in core/wording. */
import type { SitemapFault } from '../formats/sitemap';

/** Nothing came of asking a host. */
export type FetchFault =
	| 'bad-address'
	| 'unresolvable'
	| 'refused'
	| 'private-address'
	| 'certificate'
	| 'no-answer'
	| 'redirect-loop'
	| 'network';

export type GatherFault =
	| SitemapFault
	| FetchFault
	| 'status'
	| 'off-site'
	| 'cycle'
	| 'too-many-files'
	| 'index-file'
	| 'robots'
	| 'too-deep'
	| 'given-up';

export interface GatherProblem {
	/** Address or name of the file. */
	where: string;
	fault: GatherFault;
	/** A status, a host, a number; empty where there is none. */
	detail: string;
}
