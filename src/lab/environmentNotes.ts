/** What the lab has to say about a load beside its figures: the machine was slow, the line was full. */
import type { LoadRecord } from '$core/load/record';
import type { SpeedBook } from './browser/cpu';
import type { ShapeLog } from './shaper/socks';

/** Chromium opens no more sockets than this through one proxy. */
const MOST_SOCKETS = 32;
/** Below this share of its usual speed a machine counts as busy (house). */
const BUSY_BELOW = 0.7;
/** Refused hosts that are named. */
const MOST_NAMED = 5;

/** Other work on the machine makes a load slower than the page is. */
export function noteSlowMachine({ environment }: LoadRecord, { usual }: Pick<SpeedBook, 'usual'>): void {
	const { before, after } = environment.machineSpeed;
	const slowest = Math.min(before ?? Infinity, after ?? Infinity);
	if (usual === null || slowest >= usual * BUSY_BELOW) return;
	environment.notes.push(
		`The machine was busy: it ran at ${slowest.toFixed(0)} loops/ms around this load, where ${usual.toFixed(0)} is usual. Times may be too long.`
	);
}

/** What the line carried, and what it could not. */
export function noteNetwork({ environment }: LoadRecord, { connections, mostOpen }: ShapeLog): void {
	const sum = (field: 'upBytes' | 'downBytes') => connections.reduce((all, connection) => all + connection[field], 0);
	environment.network = { mostConnections: mostOpen, upBytes: sum('upBytes'), downBytes: sum('downBytes') };
	if (mostOpen >= MOST_SOCKETS)
		environment.notes.push(
			`The page wanted ${MOST_SOCKETS} or more connections at once; through the lab’s network the browser opens no more.`
		);
	const refused = connections.filter(({ error }) => error === 'private-address');
	const hosts = [...new Set(refused.map(({ host, port }) => `${host}:${port}`))];
	if (hosts.length)
		environment.notes.push(
			`The page asked for ${hosts.slice(0, MOST_NAMED).join(', ')}: private or local addresses, which pages may not reach from the lab. Refused.`
		);
}
