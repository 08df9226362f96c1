/** What the lab has to say about a load beside its figures: the machine was slow, the line was full. */
import { rollup } from 'd3-array';
import type { Outage } from '$core/load/journey/outage';
import type { LoadRecord, PathRecord } from '$core/load/record/record';
import { labNote } from '$core/wording/labNotes';
import type { Readiness } from './prepare';
import type { ShapeLog } from './shaper/socks';

/** Chromium opens no more sockets than this through one proxy. */
const MOST_SOCKETS = 32;
/** Refused hosts that are named. */
const MOST_NAMED = 5;
/** A real round trip this much above the wanted one is marked (house), ms. */
const FAR_BEYOND_MS = 3;

/** How the device's speed was reached, and what stood in its way. */
export function noteReadiness({ environment }: LoadRecord, ready: Readiness, targetSpeed: number | null): void {
	environment.machineSpeed.before = ready.machineSpeed;
	environment.slowdown = ready.slowdown;
	environment.reachedSpeed = ready.reachedSpeed;
	const { notes } = environment;
	const note = (words: string) => !notes.includes(words) && notes.push(words);
	if (ready.gaveUp && ready.waitedMs > 0)
		note(labNote('gave-up', { seconds: String(Math.round(ready.waitedMs / 1000)) }));
	if (ready.isReached || targetSpeed === null) return;
	const [machine, reached] = [ready.machineSpeed, ready.reachedSpeed ?? 0].map((speed) => speed.toFixed(0));
	if (ready.slowdown === 1) note(labNote('slow-machine', { machine: machine!, target: String(targetSpeed) }));
	else note(labNote('other-speed', { reached: reached!, target: String(targetSpeed) }));
}

/** Other work on the machine makes a load slower than the page is. */
export function noteDisturbance({ environment }: LoadRecord): void {
	const { busy, calm } = environment;
	if (!busy || !calm?.disturbed) return;
	const percent = (share: number) => `${Math.round(share * 100)} %`;
	environment.notes.push(labNote('disturbed', { stolen: percent(busy.stolen), foreign: percent(busy.foreign) }));
}

/** What was done to the page on purpose. */
export function noteOutage({ environment }: LoadRecord, { hosts, how }: Outage): void {
	environment.notes.push(labNote('outage', { hosts: hosts.join(', '), how }));
}

/** By host, the quickest real connection. */
function pathsOf(connections: ShapeLog['connections']): PathRecord[] {
	const reached = connections.filter((connection) => connection.realMs !== null);
	return [
		...rollup(
			reached,
			(all) => all.at(-1)!,
			({ host }) => host
		)
	].map(([host, { realMs, wantedMs }]) => ({
		host,
		realMs: Number(realMs!.toFixed(1)),
		wantedMs
	}));
}

const farHost = ({ host, realMs, wantedMs }: PathRecord) =>
	labNote('far-host', { host, real: String(Math.round(realMs)), wanted: String(Math.round(wantedMs)) });

/** What the line carried, and what it could not. */
export function noteNetwork({ environment }: LoadRecord, { connections, mostOpen }: ShapeLog): void {
	const sum = (field: 'upBytes' | 'downBytes') => connections.reduce((all, connection) => all + connection[field], 0);
	environment.network = { mostConnections: mostOpen, upBytes: sum('upBytes'), downBytes: sum('downBytes') };
	environment.paths = pathsOf(connections);
	const far = environment.paths.filter(({ realMs, wantedMs }) => realMs > wantedMs + FAR_BEYOND_MS);
	if (far.length) environment.notes.push(labNote('far', { hosts: far.slice(0, MOST_NAMED).map(farHost).join('; ') }));
	if (mostOpen >= MOST_SOCKETS) environment.notes.push(labNote('sockets', { n: String(MOST_SOCKETS) }));
	const refused = connections.filter(({ error }) => error === 'private-address');
	const hosts = [...new Set(refused.map(({ host, port }) => `${host}:${port}`))];
	if (hosts.length) environment.notes.push(labNote('private', { hosts: hosts.slice(0, MOST_NAMED).join(', ') }));
}
