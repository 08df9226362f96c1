/** The register of third parties: all hosts that a client's loads have seen, what they cost, and which could go. */
import { group, max, sum } from 'd3-array';
import type { DeviceClass } from '../field/reading';
import { medianOrNull } from '../stats/summary';

/** What one load saw of one host of others. */
export interface HostSeen {
	host: string;
	load: number;
	/** Address of the page, without query. */
	page: string;
	/** UTC ISO. */
	at: string;
	device: DeviceClass;
	requests: number;
	wireBytes: number;
	blockingMs: number;
	/** How much longer the load lasted because of it, ms. */
	tailMs: number;
	/** Host or kind of what asked for it first: `parser`, `own script`, another host. */
	askedBy: string;
	/** Something of it was painted: an image, a frame or a font that was seen. */
	isSeen: boolean;
}

/** What the analyst wrote down of a host. */
export interface HostNote {
	host: string;
	owner: string;
	purpose: string;
	/** UTC ISO of the day on which somebody confirmed that it is wanted; null for never. */
	confirmedAt: string | null;
}

export type RemovalReason = 'never-confirmed' | 'long-unconfirmed' | 'not-seen';

/** Medians over the loads of one device that saw a host. */
export interface DeviceCosts {
	device: DeviceClass;
	loads: number;
	requests: number;
	wireBytes: number;
	blockingMs: number;
	tailMs: number;
}

export interface RegisterLine {
	host: string;
	owner: string;
	purpose: string;
	confirmedAt: string | null;
	pages: number;
	loads: number;
	lastSeenAt: string;
	askedBy: string[];
	/** A phone pays otherwise than a desktop; the phone first. */
	devices: DeviceCosts[];
	/** Of each the median on the device where it is largest. */
	requests: number;
	wireBytes: number;
	blockingMs: number;
	tailMs: number;
	/** Why it may be asked about; empty for a host that is wanted. */
	reasons: RemovalReason[];
}

/** After so many months a confirmation should be asked for again (house). */
export const CONFIRM_MONTHS = 6;
const MONTH_MS = 30.4 * 86_400_000;

/** @param now UTC ISO @returns by what they weigh, heaviest first */
export function thirdPartyRegister(seen: readonly HostSeen[], notes: readonly HostNote[], now: string): RegisterLine[] {
	const byHost = new Map<string, HostSeen[]>();
	for (const sighting of seen) byHost.set(sighting.host, [...(byHost.get(sighting.host) ?? []), sighting]);
	const noteOf = new Map(notes.map((note) => [note.host, note]));
	return [...byHost]
		.map(([host, own]) => lineOf(host, own, noteOf.get(host), now))
		.sort((a, b) => b.wireBytes - a.wireBytes || (a.host < b.host ? -1 : 1));
}

function lineOf(host: string, own: readonly HostSeen[], note: HostNote | undefined, now: string): RegisterLine {
	const devices = [...group(own, ({ device }) => device)]
		.map(([device, seen]) => costsOn(device, seen))
		.sort((a, b) => Number(a.device === 'desktop') - Number(b.device === 'desktop'));
	const largest = (pick: (costs: DeviceCosts) => number) => max(devices, pick)!;
	const confirmedAt = note?.confirmedAt ?? null;
	return {
		host,
		owner: note?.owner ?? '',
		purpose: note?.purpose ?? '',
		confirmedAt,
		pages: new Set(own.map(({ page }) => page)).size,
		loads: own.length,
		lastSeenAt: max(own, ({ at }) => at)!,
		askedBy: [...new Set(own.map(({ askedBy }) => askedBy))].sort(),
		devices,
		requests: largest(({ requests }) => requests),
		wireBytes: largest(({ wireBytes }) => wireBytes),
		blockingMs: largest(({ blockingMs }) => blockingMs),
		tailMs: largest(({ tailMs }) => tailMs),
		reasons: reasonsOf(own, confirmedAt, now)
	};
}

function costsOn(device: DeviceClass, own: readonly HostSeen[]): DeviceCosts {
	const middle = (pick: (sighting: HostSeen) => number) => medianOrNull(own.map(pick)) ?? 0;
	return {
		device,
		loads: own.length,
		requests: middle(({ requests }) => requests),
		wireBytes: middle(({ wireBytes }) => wireBytes),
		blockingMs: middle(({ blockingMs }) => blockingMs),
		tailMs: middle(({ tailMs }) => tailMs)
	};
}

function reasonsOf(own: readonly HostSeen[], confirmedAt: string | null, now: string): RemovalReason[] {
	const isOld = confirmedAt !== null && Date.parse(now) - Date.parse(confirmedAt) > CONFIRM_MONTHS * MONTH_MS;
	const isUnseen = sum(own, ({ isSeen }) => Number(isSeen)) === 0;
	return [
		...(confirmedAt === null ? (['never-confirmed'] as const) : []),
		...(isOld ? (['long-unconfirmed'] as const) : []),
		...(isUnseen ? (['not-seen'] as const) : [])
	];
}
