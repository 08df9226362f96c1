/** The speed of the machine as a page feels it, and the slowdown that reaches a target speed. */
import type { CDPSession } from 'playwright-core';
import { median } from '$core/stats/summary';

const MOST_SLOWDOWN = 20;

/** A fixed loop of arithmetic, property and array work; returns rounds per ms over a window. */
const LOOP = `(() => {
	const box = { a: 1, b: 2, list: new Array(64).fill(3) };
	const round = () => {
		for (let i = 0; i < 400; i++) {
			box.a = (box.a * 1103515245 + 12345) & 0x7fffffff;
			box.list[i & 63] = (box.list[(i + 7) & 63] + box.a) & 0xffff;
			box.b ^= box.list[i & 31];
		}
	};
	const run = (ms) => {
		let rounds = 0;
		const from = performance.now();
		let passed = 0;
		do { for (let i = 0; i < 20; i++) round(); rounds += 20; passed = performance.now() - from; } while (passed < ms);
		return rounds / passed;
	};
	run(WARM_MS);
	return run(WINDOW_MS);
})()`;

/**
 * A slowed renderer works in bursts of some ms: windows of 40 ms scatter by a factor of seven under slowdown, those of
 * 200 ms by some per cent (measured).
 */
const WINDOW_MS = 200;
/** The engine needs some 25 ms of the loop until it runs its fastest code. */
const WARM_MS = 25;

/** Rounds of the loop per ms in this page's renderer under whatever slowdown is set. */
export async function timeLoop(session: CDPSession, { windowMs = WINDOW_MS, warmMs = WARM_MS } = {}): Promise<number> {
	const expression = LOOP.replace('WINDOW_MS', String(windowMs)).replace('WARM_MS', String(warmMs));
	const { result } = await session.send('Runtime.evaluate', { expression, returnByValue: true });
	return Number(result.value);
}

export async function setSlowdown(session: CDPSession, rate: number): Promise<void> {
	await session.send('Emulation.setCPUThrottlingRate', { rate });
}

/** Readings that make the usual speed. */
const LAST_READINGS = 12;

/** Speeds read lately on a calm machine, without slowdown: their middle sets the slowdown of a load. */
export class SpeedBook {
	#readings: number[] = [];

	/** The speed to reckon with; null before the first reading. */
	get usual(): number | null {
		return this.#readings.length ? median(this.#readings) : null;
	}

	note(reading: number): void {
		this.#readings = [...this.#readings.slice(1 - LAST_READINGS), reading];
	}
}

/** A speed reached further from the target than this is marked (house). */
export const SPEED_TOLERANCE = 0.15;

export interface Slowed {
	/** 1 is none. */
	slowdown: number;
	/** Rounds per ms; null where no target asks for it. */
	reachedSpeed: number | null;
	/** Whether the target was reached within SPEED_TOLERANCE. */
	isReached: boolean;
}

/** Slow the page's renderer down to a target speed: by the usual speed of the machine, mended once by what it gave. */
export async function slowTo(session: CDPSession, targetSpeed: number, usualSpeed: number): Promise<Slowed> {
	let slowdown = limited(usualSpeed / targetSpeed);
	let reachedSpeed = await speedUnder(session, slowdown);
	if (!isNear(reachedSpeed, targetSpeed)) {
		slowdown = limited((slowdown * reachedSpeed) / targetSpeed);
		reachedSpeed = await speedUnder(session, slowdown);
	}
	return { slowdown, reachedSpeed, isReached: isNear(reachedSpeed, targetSpeed) };
}

async function speedUnder(session: CDPSession, slowdown: number): Promise<number> {
	await setSlowdown(session, slowdown);
	return timeLoop(session, { warmMs: 0 });
}

function isNear(speed: number, target: number): boolean {
	return Math.abs(speed / target - 1) <= SPEED_TOLERANCE;
}

/** Chromium cannot slow down further than is useful, nor speed up. */
function limited(slowdown: number): number {
	return Math.min(MOST_SLOWDOWN, Math.max(1, slowdown));
}
