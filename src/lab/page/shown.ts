/** When elements that somebody named are first seen. */
import type { StepState } from '$core/load/journey/steps';
import { problemOf } from './acts';
import { isInView, isShown } from './sight';

export interface Shown {
	selector: string;
	/** ms since the navigation; null until then. */
	atMs: number | null;
}

let named: Shown[] = [];

export const shownElements = (): readonly Shown[] => named;

/** @param selectors of elements in the first screen; one that cannot be read is left out */
export function watchShown(selectors: readonly string[]): void {
	named = selectors.filter(isReadable).map((selector) => ({ selector, atMs: null }));
	requestAnimationFrame(look);
}

function isReadable(selector: string): boolean {
	try {
		document.createDocumentFragment().querySelector(selector);
		return true;
	} catch {
		return false;
	}
}

/** In each frame, after its layout and before it is painted, until all have been seen. */
function look(): void {
	for (const shown of named) if (shown.atMs === null && isSeen(shown.selector)) shown.atMs = performance.now();
	if (named.some(({ atMs }) => atMs === null)) requestAnimationFrame(look);
}

function isSeen(selector: string): boolean {
	const element = document.querySelector(selector);
	return element !== null && hasCome(element) && isShown(element) && isInView(element.getBoundingClientRect());
}

/** Its picture is there, where it is one. */
const hasCome = (element: Element): boolean =>
	!(element instanceof HTMLImageElement) || (element.complete && element.naturalWidth > 0);

/** The state that is waited for, and when it came; another one is waited for from its first asking on. */
let awaited: { key: string; atEpochMs: number | null } | null = null;

export function stateShown(state: StepState): number | null {
	const key = JSON.stringify(state);
	if (awaited?.key !== key) {
		const own: typeof awaited = (awaited = { key, atEpochMs: null });
		const lookForIt = () => {
			if (awaited !== own) return;
			if (problemOf(state) === null) own.atEpochMs = performance.timeOrigin + performance.now();
			else requestAnimationFrame(lookForIt);
		};
		lookForIt();
	}
	return awaited.atEpochMs;
}
