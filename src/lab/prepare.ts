/** Before navigating: a calm machine, the device's speed, and a page at rest. */
import { setTimeout as pause } from 'node:timers/promises';
import type { CDPSession } from 'playwright-core';
import { isCalm, isResting, type CalmLimits } from '$core/load/vitals/calm';
import { slowTo, timeLoop, type Slowed, type SpeedBook } from './browser/cpu';
import type { CalmWatch } from './calm/watch';

export interface Readiness extends Slowed {
	/** Rounds of the calibration loop per ms without slowdown. */
	machineSpeed: number;
	/** Wait for a calm machine, ms. */
	waitedMs: number;
	/** It was not calm when the wait was over. */
	gaveUp: boolean;
}

export interface Preparing {
	session: CDPSession;
	/** Null leaves the machine as it is. */
	targetSpeed: number | null;
	book: SpeedBook;
	watch: Pick<CalmWatch, 'samples' | 'look'>;
	limits: CalmLimits;
	/** Ends the load from outside. */
	ended: Promise<never>;
}

/** Without slowdown a browser at rest reads the same within a per cent over 100 ms (measured). */
const UNSLOWED = { windowMs: 100 };
/** Where it is one of those whose middle sets the slowdown, and not the load's own. */
const ONE_OF_MANY = { windowMs: 50 };
/** Between two looks at a machine that is not calm. */
const LOOK_AGAIN_MS = 100;
const MOST_REST_MS = 3000;
/** A sample of a tenth of a second tells of the rest that long after it began. */
const LOOK_FOR_REST_MS = 40;
const IDLE_WITHIN_MS = 2000;
/** Answered once renderer and compositor have nothing to do. */
const IDLE = `new Promise((resolve) => requestIdleCallback(() => resolve(1), { timeout: ${IDLE_WITHIN_MS} }))`;

/** Let the browser come to rest, wait for a calm machine, set the device's speed. */
export async function prepare(preparing: Preparing): Promise<Readiness> {
	const { session, targetSpeed, book, ended } = preparing;
	await rest(preparing);
	const gate = await passGate(preparing);
	if (!gate.gaveUp || book.usual === null) book.note(gate.machineSpeed);
	const slowed =
		targetSpeed === null
			? { slowdown: 1, reachedSpeed: gate.machineSpeed, isReached: true }
			: await slowTo(session, targetSpeed, book.usual!);
	await idle(session, ended);
	return { ...gate, ...slowed };
}

/** Reading the speed is the small demand under which stolen time shows: nothing is stolen from an idle machine. */
async function passGate({ session, targetSpeed, watch, limits, ended }: Preparing) {
	const window = targetSpeed === null ? UNSLOWED : ONE_OF_MANY;
	const begun = performance.now();
	for (;;) {
		const from = performance.now();
		const machineSpeed = await Promise.race([timeLoop(session, window), ended]);
		const waitedMs = Math.round(from - begun);
		const calm = isCalm(watch.samples, limits);
		if (calm !== false) return { machineSpeed, waitedMs, gaveUp: false };
		if (performance.now() - begun >= limits.waitMs) return { machineSpeed, waitedMs, gaveUp: true };
		await Promise.race([pause(LOOK_AGAIN_MS), ended]);
	}
}

/**
 * Once its tab is open the browser goes on working for some 600 ms, on every processor: a page that begins then runs at
 * half the machine's speed, and its first byte came 25 ms late (measured).
 */
async function rest({ watch, limits, ended }: Preparing): Promise<void> {
	if (limits.restMs === 0) return;
	const begun = performance.now();
	for (;;) {
		await Promise.race([pause(LOOK_FOR_REST_MS), ended]);
		const restedMs = performance.now() - begun;
		watch.look();
		if (restedMs >= MOST_REST_MS || (restedMs >= limits.restMs && isResting(watch.samples))) return;
	}
}

async function idle(session: CDPSession, ended: Promise<never>): Promise<void> {
	const answered = session.send('Runtime.evaluate', { expression: IDLE, awaitPromise: true }).catch(() => null);
	await Promise.race([answered, pause(IDLE_WITHIN_MS), ended]);
}
