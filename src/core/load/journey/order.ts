/** What a lab is asked for, whoever asks. */
import type { NamedElement } from './namedElement';
import type { Conditions } from '../conditions/conditions';
import type { Outage } from './outage';
import type { Step } from './steps';
import type { Tap } from './tap';
import type { Rewrite } from '../../rewrites/rewrite';
import type { VisitorState } from './visitorState';

export interface LoadOrder {
	url: string;
	conditions: Conditions;
	/** Done once the page has settled. */
	steps: readonly Step[];
	/** Once it has settled, nobody moves and the lab waits on: what starts only then was postponed. */
	patience?: boolean;
	/** Elements that are counted on the settled page. */
	selectors?: readonly string[];
	/** Elements of which is noted when they are first seen. */
	shown?: readonly NamedElement[];
	/** Answer to HTTP authentication of this page's host, where the conditions have none. */
	access?: Conditions['authentication'];
	/** What the visitor does, or is known by, before the page is measured. */
	before?: VisitorState | null;
	/** A call that empties the site's cache before the load. */
	purge?: { method: string; url: string } | null;
	/** A control that is pressed while the page loads. */
	tap?: Tap | null;
	/** Once it has settled: what can be picked, and which checks hold. */
	survey?: boolean;
	/** Once it has settled: accessibility, and what its head says. */
	sideChecks?: boolean;
	/** Keep what came, for working out what could be saved. */
	bodies?: boolean;
	/** What is measured together, a round or a reading: the browser is not renewed in the middle of it. */
	block?: string;
	/** Asked as an ordinary browser, without what tells the lab. */
	asVisitor?: boolean;
	/** The page is changed on its way: a rehearsal. All its variants pass the same server, the untouched one too. */
	rewriting?: { rewrites: readonly Rewrite[]; twin: string | null } | null;
	/** A service that is struck while the page loads. */
	outage?: Outage | null;
}
