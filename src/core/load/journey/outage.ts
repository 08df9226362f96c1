/** What a page does when an outside service is slow, refuses, or never answers: one load each. */
import { group } from 'd3-array';
import * as v from 'valibot';
import { ownerOf } from '../requests/owners';
import type { LoadRecord } from '../record/record';

export const OUTAGE_KINDS = ['slow', 'refused', 'silent'] as const;
export type OutageKind = (typeof OUTAGE_KINDS)[number];

/** How much later a slow service answers on each new connection (house). */
export const OUTAGE_SLOW_MS = 3000;
/** The heaviest services of a page are tried, no more of them (house). */
const MOST_SERVICES = 8;

export const Outage = v.object({
	/** Hosts that are struck. */
	hosts: v.pipe(v.array(v.string()), v.minLength(1)),
	how: v.picklist(OUTAGE_KINDS, `A service can be: ${OUTAGE_KINDS.join(', ')}.`)
});
export type Outage = v.InferOutput<typeof Outage>;

export interface OutsideService {
	/** Registrable domain. */
	id: string;
	name: string;
	hosts: string[];
	requests: number;
}

/** The third parties that a page asks while it loads, those with most requests first. */
export function outsideServices(
	{ requests, finalUrl, url }: Pick<LoadRecord, 'requests' | 'finalUrl' | 'url'>,
	cdnHosts: readonly string[] = []
): OutsideService[] {
	const siteHost = new URL(finalUrl || url).host;
	const foreign = requests
		.filter(({ during }) => during === 'load')
		.map(({ host }) => ({ host: host.replace(/:\d+$/, ''), owner: ownerOf(host, siteHost, cdnHosts) }))
		.filter(({ owner }) => owner.kind === 'third-party');
	return [...group(foreign, ({ owner }) => owner.id)]
		.map(([id, own]) => ({
			id,
			name: own[0]!.owner.name,
			hosts: [...new Set(own.map(({ host }) => host))].sort(),
			requests: own.length
		}))
		.sort((a, b) => b.requests - a.requests)
		.slice(0, MOST_SERVICES);
}

/** What one load under an outage showed. Times in ms; null where they were not reached. */
export interface OutageResult {
	service: string;
	how: OutageKind;
	load: number;
	start: number | null;
	lcp: number | null;
	/** When the load event came; null when it never did. */
	onload: number | null;
	/** Errors in the console. */
	errors: number;
	/** Why the load failed; null when it did not. */
	failed: string | null;
	/** Number of the step that failed; null when none did, or there were none. */
	failedStep: number | null;
}

export type Usual = Pick<OutageResult, 'start' | 'lcp' | 'onload' | 'errors'>;

export interface RankedOutage extends OutageResult {
	/** How much later than usual, ms; null where either is unknown. */
	startLater: number | null;
	lcpLater: number | null;
	/** The page was not shown, or no longer worked. */
	isBroken: boolean;
}

/**
 * Those that hurt most first: a page that is not shown or no longer works, then by how much later it begins to render,
 * then by its largest paint. Single loads: they show what happens, and prove no difference.
 */
export function rankOutages(results: readonly OutageResult[], usual: Usual): RankedOutage[] {
	return results
		.map((result): RankedOutage => ({
			...result,
			startLater: later(result.start, usual.start),
			lcpLater: later(result.lcp, usual.lcp),
			isBroken: result.failed !== null || result.failedStep !== null || (result.start === null && usual.start !== null)
		}))
		.sort(
			(a, b) =>
				Number(b.isBroken) - Number(a.isBroken) ||
				(b.startLater ?? 0) - (a.startLater ?? 0) ||
				(b.lcpLater ?? 0) - (a.lcpLater ?? 0)
		);
}

function later(now: number | null, usual: number | null): number | null {
	return now === null || usual === null ? null : now - usual;
}
