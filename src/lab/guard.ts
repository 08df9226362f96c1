/** Nothing leaves that would send something: for checks of forms, and for trying checks on a page. */
import type { Page } from 'playwright-core';
import { within } from './browser/deadlines';

const ANSWER_WITHIN_MS = 5000;
/** Asking changes nothing (RFC 9110, section 9.2.1). */
const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);

/** `sending`: what is not merely asked for, and what was stopped before; `all`: everything. */
export type HeldBack = 'sending' | 'all';

export interface Guard {
	/** What was stopped: "POST https://…". */
	readonly stopped: readonly string[];
	hold(what: HeldBack): void;
}

/**
 * Every request of the page, of its frames and workers waits for leave, until the page is closed: a script that tries
 * again later is stopped too.
 */
export async function guard(page: Page): Promise<Guard> {
	const session = await within(page.context().newCDPSession(page), ANSWER_WITHIN_MS);
	const stopped: string[] = [];
	let what: HeldBack = 'all';
	session.on('Fetch.requestPaused', ({ requestId, request }) => {
		const name = `${request.method} ${request.url.slice(0, 200)}`;
		const isStopped = what === 'all' || !SAFE.has(request.method) || stopped.includes(name);
		if (isStopped) stopped.push(name);
		const answer = isStopped
			? session.send('Fetch.failRequest', { requestId, errorReason: 'Aborted' })
			: session.send('Fetch.continueRequest', { requestId });
		answer.catch(() => undefined);
	});
	await session.send('Fetch.enable', { patterns: [{ urlPattern: '*' }] });
	return { stopped, hold: (next) => (what = next) };
}
