/** What became of each owner's requests in a variant: still loaded, postponed, held back, or removed. */
import { groups, sum } from 'd3-array';
import { ownerOf, type Owner } from '../../load/requests/owners';
import type { HostTraffic } from './facts';
import type { LateLoads } from './putOff';

export type Fate = 'loaded' | 'postponed' | 'held-back' | 'removed';

export interface OwnerFate extends Owner {
	/** The latest way in which its requests come in the variant; `loaded` when all come while the page loads. */
	fate: Fate;
	baseline: { requests: number; wireBytes: number };
	/** In the variant: while the page loaded, later by itself, after an input. */
	loaded: { requests: number; wireBytes: number };
	postponed: { requests: number; wireBytes: number };
	heldBack: { requests: number; wireBytes: number };
	/** When the first postponed request began, ms since the navigation; null without one. */
	postponedMs: number | null;
}

const NOTHING: LateLoads = { postponed: null, heldBack: null };

/** @param siteHost host of the page, to tell own files from third parties */
export function ownerFates(
	baseline: LateLoads | null,
	arm: LateLoads,
	siteHost: string,
	cdnHosts: readonly string[] = []
): OwnerFate[] {
	const before = trafficOf(baseline ?? NOTHING);
	const patient = arm.postponed?.hosts ?? [];
	const nudged = arm.heldBack?.hosts ?? [];
	const hosts = [...new Set([...before, ...patient, ...nudged].map(({ host }) => host))];
	return groups(
		hosts.map((host) => ({ host, owner: ownerOf(host, siteHost, cdnHosts) })),
		({ owner }) => owner.id
	).map(([, own]) => {
		const names = new Set(own.map(({ host }) => host));
		const pick = (all: readonly HostTraffic[]) => all.filter(({ host }) => names.has(host));
		const loaded = whileLoading(pick(trafficOf(arm)));
		const postponed = late(pick(patient));
		const heldBack = late(pick(nudged));
		const [first] = pick(patient)
			.flatMap(({ lateMs }) => (lateMs === null ? [] : [lateMs]))
			.sort((a, b) => a - b);
		return {
			...own[0]!.owner,
			fate: fateOf(loaded.requests, postponed.requests, heldBack.requests),
			baseline: whileLoading(pick(before)),
			loaded,
			postponed,
			heldBack,
			postponedMs: first ?? null
		};
	});
}

/** While the page loads both kinds of load see the same: the patient one speaks, where there is one. */
function trafficOf({ postponed, heldBack }: LateLoads): readonly HostTraffic[] {
	return (postponed ?? heldBack)?.hosts ?? [];
}

function whileLoading(traffic: readonly HostTraffic[]) {
	return { requests: sum(traffic, (fate) => fate.loadRequests), wireBytes: sum(traffic, (fate) => fate.loadBytes) };
}

function late(traffic: readonly HostTraffic[]) {
	return { requests: sum(traffic, (fate) => fate.lateRequests), wireBytes: sum(traffic, (fate) => fate.lateBytes) };
}

/** What comes by itself is no fruit of an input: an input is told only where nothing else brings it. */
function fateOf(loaded: number, postponed: number, heldBack: number): Fate {
	if (postponed > 0) return 'postponed';
	if (heldBack > 0) return 'held-back';
	return loaded > 0 ? 'loaded' : 'removed';
}
