/** The watchdog's own thread. */
import { writeSync } from 'node:fs';
import { workerData } from 'node:worker_threads';
import { NEVER, SLOT, type WatchdogData } from './watchdog';

const { shared, limits, parent } = workerData as WatchdogData;
const slots = new BigInt64Array(shared);
const STDERR = 2;
const MS = 1e6;

const nowMs = () => Number(process.hrtime.bigint()) / MS;
const slotMs = (slot: number) => Number(Atomics.load(slots, slot)) / MS;

let lookedAt = nowMs();
/** From when on the loop is held to its limits: after a stop of the whole process it has a fresh start. */
let freshAt = lookedAt;
let orphanedAt: number | null = null;

function why(now: number): string | null {
	const silentMs = now - Math.max(slotMs(SLOT.heardAt), freshAt);
	if (silentMs > limits.silentMs) return `its loop has been silent for ${Math.round(silentMs / 1000)} s`;
	const isDue = Atomics.load(slots, SLOT.dueAt) !== NEVER;
	if (isDue && now - Math.max(slotMs(SLOT.dueAt), freshAt) > limits.lateMs) return 'its job does not end';
	if (parent === null || process.ppid === parent) return null;
	orphanedAt ??= now;
	return now - orphanedAt > limits.orphanMs ? 'web has gone' : null;
}

setInterval(() => {
	const now = nowMs();
	if (now - lookedAt > limits.lookMs + limits.silentMs / 2) freshAt = now;
	lookedAt = now;
	const reason = why(now);
	if (reason === null) return;
	writeSync(STDERR, `The lab is ended: ${reason}.\n`);
	process.kill(process.pid, 'SIGKILL');
}, limits.lookMs);
