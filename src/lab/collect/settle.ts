/** When a page has settled: after the load event, no request under way and no long task for a while. */
import { setTimeout as pause } from 'node:timers/promises';
import type { CDPSession } from 'playwright-core';
import type { NetworkCollector } from './network';

const LOOK_EVERY_MS = 50;
/** A page that takes longer than this to answer was busy. */
const FREE_WITHIN_MS = 60;
/** Past the deadline, a page that does not answer within this is stuck. */
const LAST_ANSWER_WITHIN_MS = 1000;

export interface SettleResult {
	/** The load event fired. */
	loaded: boolean;
	/** The page was still busy at the deadline. */
	capped: boolean;
	/** The page's main thread did not answer at the deadline. */
	stuck: boolean;
}

/**
 * @param busyAt the lab's performance.now() of the last long task or load event
 * @param deadline performance.now() at which waiting ends
 */
export async function waitUntilSettled(
	session: CDPSession,
	{
		network,
		state,
		quietMs,
		deadline
	}: {
		network: NetworkCollector;
		state: { loaded: boolean; busyAt: number; ended: Promise<never> };
		quietMs: number;
		deadline: number;
	}
): Promise<SettleResult> {
	while (performance.now() < deadline) {
		await Promise.race([pause(LOOK_EVERY_MS), state.ended]);
		const quietSince = Math.max(network.lastActivityAt, state.busyAt);
		if (!state.loaded || network.waiting > 0 || performance.now() - quietSince < quietMs) continue;
		const startedAt = performance.now();
		const answered = await Promise.race([answers(session), pause(deadline - startedAt).then(() => false), state.ended]);
		if (answered && performance.now() - startedAt <= FREE_WITHIN_MS)
			return { loaded: true, capped: false, stuck: false };
		state.busyAt = performance.now();
	}
	const answered = await Promise.race([answers(session), pause(LAST_ANSWER_WITHIN_MS).then(() => false), state.ended]);
	return { loaded: state.loaded, capped: true, stuck: !answered };
}

async function answers(session: CDPSession): Promise<boolean> {
	try {
		await session.send('Runtime.evaluate', { expression: '1', returnByValue: true });
		return true;
	} catch {
		return false;
	}
}
