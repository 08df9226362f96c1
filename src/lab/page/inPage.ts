/** What the lab may ask of a page: answered in a world of its own, which the page neither sees nor changes. */
import type { StepState } from '$core/load/journey/steps';

export interface Point {
	x: number;
	y: number;
}

/** Where a control lies, and whether a press at the point in question would reach it. */
export interface Aim extends Point {
	hits: boolean;
}

/** Arguments and answers are plain data: they travel between processes. */
export interface InPage {
	/** All that is known of the document once it has settled; parsed by `parsePageFacts`. */
	collect(): unknown;
	/** What this document has seen since a moment, epoch ms; parsed by `parseSince`. */
	since(epochMs: number): unknown;
	/** How many elements fit each selector; null for one that cannot be read. */
	count(selectors: readonly string[]): (number | null)[];
	/** Bring an element into view, and where to press it. @throws for a selector that cannot be read */
	point(selector: string): Point | { problem: string };
	/** Where an element is on screen; null when it is not to be seen. @param at the point in question; its own middle */
	aim(selector: string, at: Point | null): Aim | null;
	/** What of a state does not hold; null when all of it does. @throws for a selector that cannot be read */
	problem(state: StepState): string | null;
	/**
	 * When a state comes to hold: looked for in every frame from the first asking on, so that asking again and again
	 * costs nothing of its exactness. Epoch ms; null until then. @throws for a selector that cannot be read
	 */
	stateShown(state: StepState): number | null;
	/** Scroll by pixels, to the bottom, or to an element. @returns what stands in the way */
	scroll(target: number | string): string | null;
	/** With tools: what can be picked and checked; parsed by `parsePageSurvey`. */
	survey(): unknown;
	/** With tools: the words of elements, empty for one that is not there. */
	wordsAt(selectors: readonly string[]): string[];
	/** With tools: fill a form and press its button; whoever asks holds what leaves. @throws for a bad selector */
	tryToSend(selector: string): { problem: string | null; isHandled: boolean };
	/** With tools: what its head says; parsed by `HeadFacts`. */
	headFacts(): unknown;
	/** With tools: which signs and pictures of style it draws; parsed by `Drawn`. */
	drawn(): unknown;
	/** Note from now on when elements are first seen. */
	watchShown(selectors: readonly string[]): void;
}

/** Name of the lab's world, and of the one thing in it. */
export const WORLD = 'zafra';
/** The lab's binding in that world: called at each long task, so that the lab knows when the page is quiet. */
export const BUSY = 'zafraBusy';
