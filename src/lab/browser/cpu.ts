/** The speed of the machine as a page feels it, and the slowdown that reaches a target speed. */
import type { CDPSession } from 'playwright-core';
import { ascending, quantileSorted } from '$core/stats/summary';

/** Chromium cannot slow down further than is useful, nor speed up. */
const MOST_SLOWDOWN = 20;

/**
 * A fixed loop of arithmetic, property and array work, timed for a few slices; the fastest slice counts, since other
 * work on the machine can only slow a slice down. Returns rounds per ms.
 */
const LOOP = `(() => {
	const box = { a: 1, b: 2, list: new Array(64).fill(3) };
	const round = () => {
		for (let i = 0; i < 400; i++) {
			box.a = (box.a * 1103515245 + 12345) & 0x7fffffff;
			box.list[i & 63] = (box.list[(i + 7) & 63] + box.a) & 0xffff;
			box.b ^= box.list[i & 31];
		}
	};
	const slice = (ms) => {
		let rounds = 0;
		const from = performance.now();
		let passed = 0;
		do { for (let i = 0; i < 20; i++) round(); rounds += 20; passed = performance.now() - from; } while (passed < ms);
		return rounds / passed;
	};
	slice(WARM_MS);
	let best = 0;
	for (let i = 0; i < SLICES; i++) best = Math.max(best, slice(SLICE_MS));
	return best;
})()`;

/**
 * Rounds of the loop per ms in this page's renderer under whatever slowdown is set.
 * @param warmMs the engine needs some 25 ms of the loop until it runs its fastest code
 */
export async function timeLoop(session: CDPSession, { slices = 4, sliceMs = 5, warmMs = 25 } = {}): Promise<number> {
	const expression = LOOP.replace('SLICES', String(slices))
		.replace('SLICE_MS', String(sliceMs))
		.replace('WARM_MS', String(warmMs));
	const { result } = await session.send('Runtime.evaluate', { expression, returnByValue: true });
	return Number(result.value);
}

export async function setSlowdown(session: CDPSession, rate: number): Promise<void> {
	await session.send('Emulation.setCPUThrottlingRate', { rate });
}

/** A slowed renderer works in bursts of a fraction of a ms: a slice must hold a good number of them. */
const UNDER_SLOWDOWN = { slices: 4, sliceMs: 10, warmMs: 0 };
function limited(slowdown: number): number {
	return Math.min(MOST_SLOWDOWN, Math.max(1, slowdown));
}

/**
 * Speeds read lately, without slowdown. Other work on the machine can only make a reading too low and never too high,
 * and it comes and goes within a load: the slowdown is therefore set by the upper quartile of the last readings, so
 * that it hardly changes from load to load.
 */
export class SpeedBook {
	#readings: number[] = [];

	/** The speed to reckon with; null before the first reading. */
	get usual(): number | null {
		return this.#readings.length ? quantileSorted(ascending(this.#readings), 0.75) : null;
	}

	/** Take a reading; returns the speed to reckon with. */
	note(reading: number): number {
		this.#readings = [...this.#readings.slice(-11), reading];
		return this.usual!;
	}
}

export interface Calibration {
	machineSpeed: number;
	slowdown: number;
	reachedSpeed: number;
	note: string | null;
}

/** Slow the page's renderer down to the target speed and say how well that worked. */
export async function calibrate(
	session: CDPSession,
	targetSpeed: number | null,
	book: SpeedBook
): Promise<Calibration> {
	const machineSpeed = await timeLoop(session);
	const usualSpeed = book.note(machineSpeed);
	if (targetSpeed === null) return { machineSpeed, slowdown: 1, reachedSpeed: machineSpeed, note: null };
	const wanted = usualSpeed / targetSpeed;
	const slowdown = limited(wanted);
	if (slowdown > 1) await setSlowdown(session, slowdown);
	const reachedSpeed = slowdown > 1 ? await timeLoop(session, UNDER_SLOWDOWN) : machineSpeed;
	const note =
		wanted < 1
			? `This machine (${usualSpeed.toFixed(0)} loops/ms) is slower than the device it should stand for (${targetSpeed} loops/ms).`
			: null;
	return { machineSpeed, slowdown, reachedSpeed, note };
}
