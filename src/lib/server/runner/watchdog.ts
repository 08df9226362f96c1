/**
 * Ends this process when its event loop hangs, when a job takes longer than it may, or when web has gone. It runs in a
 * thread of its own: whatever should end a hanging loop from inside runs in that loop.
 */
import { isBuilt, startThread } from '../../../lab/thread';

export interface WatchdogLimits {
	/** The loop is silent for so long, ms. */
	silentMs: number;
	/** A job goes on for so long beyond its time, ms. */
	lateMs: number;
	/** Web has gone for so long: until then the lab may end by itself, ms. */
	orphanMs: number;
	/** How often that is looked at, ms. */
	lookMs: number;
}

const LIMITS: WatchdogLimits = { silentMs: 60_000, lateMs: 60_000, orphanMs: 20_000, lookMs: 1000 };

/** What both threads see: nanoseconds of the system's monotonic clock. */
export const SLOT = { heardAt: 0, dueAt: 1 } as const;
/** Of no job. */
export const NEVER = 0n;
const NS_PER_MS = 1_000_000n;

export interface Watchdog {
	/** The loop lives. */
	beat(): void;
	/** What is under way must be over within so many ms; null for nothing. */
	expect(withinMs: number | null): void;
}

export interface WatchdogData {
	shared: SharedArrayBuffer;
	limits: WatchdogLimits;
	/** Whoever started this process; null where it belongs to nobody. */
	parent: number | null;
}

/** @param parent process with which this one ends; null for none */
export function startWatchdog(parent: number | null, limits: Partial<WatchdogLimits> = {}): Watchdog {
	const shared = new SharedArrayBuffer(2 * BigInt64Array.BYTES_PER_ELEMENT);
	const slots = new BigInt64Array(shared);
	const beat = () => void Atomics.store(slots, SLOT.heardAt, process.hrtime.bigint());
	beat();
	const data: WatchdogData = { shared, limits: { ...LIMITS, ...limits }, parent };
	startThread(new URL(isBuilt ? './watchdog.mjs' : './watchdogThread.ts', import.meta.url), data);
	return {
		beat,
		expect(withinMs) {
			const dueAt = withinMs === null ? NEVER : process.hrtime.bigint() + BigInt(Math.ceil(withinMs)) * NS_PER_MS;
			Atomics.store(slots, SLOT.dueAt, dueAt);
		}
	};
}

/** Of a loop that nobody watches. */
export const NO_WATCHDOG: Watchdog = { beat: () => undefined, expect: () => undefined };
