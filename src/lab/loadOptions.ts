/** What a load is given: what it shall do, and what it shares with the lab's others. */
import type { Conditions } from '$core/load/conditions/conditions';
import type { NamedElement } from '$core/load/journey/namedElement';
import type { Step } from '$core/load/journey/steps';
import type { Tap } from '$core/load/journey/tap';
import type { VisitorState } from '$core/load/journey/visitorState';
import type { CalmLimits } from '$core/load/vitals/calm';
import type { SpeedBook } from './browser/cpu';
import type { LoadMoments } from './calm/describe';
import type { CalmWatch } from './calm/watch';
import type { RunningBrowser } from './browser/launch';

/** `bare` leaves out frames, coverage and bodies: to measure what collecting them costs. */
export type Collects = 'full' | 'bare';

export interface LoadOptions {
	conditions: Conditions;
	address: URL;
	startedAt: Date;
	collects: Collects;
	steps: readonly Step[];
	/** Wait on once the page has settled. */
	patience: boolean;
	/** Elements to count on the settled page. */
	selectors: readonly string[];
	/** Elements of which is noted when they are first seen. */
	shown: readonly NamedElement[];
	/** Without what tells the lab. */
	asVisitor: boolean;
	/** Pressed while the page loads. */
	tap: Tap | null;
	/** Accessibility, and what the head says. */
	sideChecks: boolean;
	/** Keep what came. */
	bodies: boolean;
	/** Look at what can be picked and checked. */
	survey: boolean;
	/** Done, or known of the visitor, before. */
	before: VisitorState | null;
}

/** What a lab's loads share. */
export interface Shared {
	running: RunningBrowser;
	speeds: SpeedBook;
	watch: CalmWatch;
	limits: CalmLimits;
	/** Filled as far as the load comes. */
	moments: LoadMoments;
	/** Longest wait for an answer of the browser, ms. */
	answerWithinMs: number;
}
