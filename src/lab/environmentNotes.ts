/** What the lab has to say about a load beside its figures: the machine was slow, the line was full. */
import { rollup } from 'd3-array';
import type { Outage } from '$core/load/journey/outage';
import type { LoadRecord, PathRecord } from '$core/load/record/record';
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
		note(
			`The machine did not become calm within ${Math.round(ready.waitedMs / 1000)} s; the load was made all the same.`
		);
	if (ready.isReached || targetSpeed === null) return;
	const [machine, reached] = [ready.machineSpeed, ready.reachedSpeed ?? 0].map((speed) => speed.toFixed(0));
	if (ready.slowdown === 1)
		note(`This machine (${machine} loops/ms) is slower than the device it should stand for (${targetSpeed} loops/ms).`);
	else note(`The page ran at ${reached} loops/ms, where the device it should stand for has ${targetSpeed}.`);
}

/** Other work on the machine makes a load slower than the page is. */
export function noteDisturbance({ environment }: LoadRecord): void {
	const { busy, calm } = environment;
	if (!busy || !calm?.disturbed) return;
	const percent = (share: number) => `${Math.round(share * 100)} %`;
	environment.notes.push(
		`The machine was busy with something else: of the processor time wanted around this load, ${percent(busy.stolen)} went to other machines on the same host and ${percent(busy.foreign)} to other programs. Times may be too long.`
	);
}

/** What was done to the page on purpose. */
export function noteOutage({ environment }: LoadRecord, { hosts, how }: Outage): void {
	const did = { slow: 'answered 3 s late', refused: 'refused every connection', silent: 'never answered' }[how];
	environment.notes.push(`On purpose, ${hosts.join(', ')} ${did} during this load.`);
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

/** What the line carried, and what it could not. */
export function noteNetwork({ environment }: LoadRecord, { connections, mostOpen }: ShapeLog): void {
	const sum = (field: 'upBytes' | 'downBytes') => connections.reduce((all, connection) => all + connection[field], 0);
	environment.network = { mostConnections: mostOpen, upBytes: sum('upBytes'), downBytes: sum('downBytes') };
	environment.paths = pathsOf(connections);
	const far = environment.paths.filter(({ realMs, wantedMs }) => realMs > wantedMs + FAR_BEYOND_MS);
	if (far.length)
		environment.notes.push(
			`The real way to ${far
				.slice(0, MOST_NAMED)
				.map(
					({ host, realMs, wantedMs }) =>
						`${host} takes ${Math.round(realMs)} ms, ${Math.round(wantedMs)} ms were wanted`
				)
				.join('; ')}: the line cannot be made shorter.`
		);
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
