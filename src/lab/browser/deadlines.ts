/** No call into the browser is waited for without an end: a page can keep its renderer busy for ever. */
import type { CDPSession } from 'playwright-core';
import { failure } from '../failure';

/**
 * Longest time for an answer of a browser whose page is not stuck; collecting from 300,000 nodes takes a third of it.
 */
export const ANSWER_WITHIN_MS = 10_000;
/** Navigating is waited for by the load's own cap. */
const WITH_OWN_DEADLINE = new Set(['Page.navigate']);

/** The same session, whose calls fail with `time-out` when no answer comes. */
export function withDeadlines(session: CDPSession, withinMs = ANSWER_WITHIN_MS): CDPSession {
	const send = session.send.bind(session) as (method: string, params?: object) => Promise<unknown>;
	const bounded = (method: string, params?: object) => {
		const answer = send(method, params);
		return WITH_OWN_DEADLINE.has(method) ? answer : within(answer, withinMs);
	};
	return Object.assign(session, { send: bounded as CDPSession['send'] });
}

/** @throws LoadFailure `time-out` when the answer does not come in time */
export async function within<Answer>(answer: Promise<Answer>, ms: number): Promise<Answer> {
	let timer: NodeJS.Timeout | undefined;
	const late = new Promise<never>((_, reject) => {
		timer = setTimeout(() => reject(failure('time-out', 'a script kept its main thread busy')), ms);
	});
	answer.catch(() => undefined);
	try {
		return await Promise.race([answer, late]);
	} finally {
		clearTimeout(timer);
	}
}
