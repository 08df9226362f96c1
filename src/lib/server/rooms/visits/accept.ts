/** The visits' door: what may come in, and why something may not. */
import { issuesOf } from '../../base/parse';
import * as v from 'valibot';
import { isSiteOrigin } from '$core/pages/address';
import {
	Beacon,
	isBotAgent,
	isImplausible,
	withoutIds,
	type Refusal,
	type Visit,
	type VisitFault
} from '$core/field/visit';
import type { Db } from '../../base/db/connection';
import { bucketOfPath } from './buckets';
import { bucketsOfSite, type SiteBuckets } from './queries/buckets';
import { hostsOfSource } from './sources';
import { sourceByKey, type VisitSource } from './queries/sources';
import { secretOf } from './queries/store';
import { isGoodToken } from './token';
import { AddressWeights, networkOf } from './weights';
import type { IncomingVisit, VisitWriter } from './writer';

export const MOST_BEACON_BYTES = 32_000;
/** Reads a site's settings anew so often, ms: a beacon must not wait for the main database. */
const FRESH_MS = 15_000;
const MINUTE_MS = 60_000;

export interface BeaconAsk {
	body: string;
	origin: string | null;
	userAgent: string;
	/** Of the sender: held in memory for a minute, a sum of it for a day; kept nowhere. */
	address: string;
	now: number;
}

export type BeaconAnswer = { status: 204 } | { status: 400 | 403 | 413 | 422 | 429; why: string };

interface Known {
	source: VisitSource;
	hosts: string[];
	buckets: SiteBuckets;
	until: number;
}

export class VisitDoor {
	#known = new Map<string, Known | null>();
	#senders = new Map<string, number>();
	#minute = 0;
	#weights = new AddressWeights();
	#secret: string;

	constructor(
		private readonly main: Db,
		visits: Db,
		private readonly writer: VisitWriter,
		/** Page views that one address may send in a minute. */
		private readonly mostAMinute: number
	) {
		this.#secret = secretOf(visits);
	}

	/** Settings or pages of a site have changed. */
	forget(): void {
		this.#known.clear();
	}

	async take(ask: BeaconAsk): Promise<BeaconAnswer> {
		if (ask.body.length > MOST_BEACON_BYTES) return { status: 413, why: 'A beacon has at most 32 kB.' };
		const beacon = parse(ask.body);
		if (typeof beacon === 'string') return { status: 400, why: beacon };
		const site = this.#siteOf(beacon.key, ask.now);
		if (!site) return { status: 403, why: 'No site has this key. Copy the script tag from Zafra again.' };
		const { siteId } = site.source;
		const refuse = (reason: Refusal, status: 403 | 422 | 429, why: string): BeaconAnswer => {
			this.writer.refuse(siteId, reason, ask.now, beacon.visits.length);
			return { status, why };
		};
		if (this.#isFlood(ask, beacon.visits.length))
			return refuse('flood', 429, 'Too many page views from one address in a minute.');
		if (!ask.origin || !isSiteOrigin(ask.origin, site.hosts))
			return refuse('origin', 403, 'This key is of a site at another host.');
		if (!isGoodToken(beacon.token, this.#secret, beacon.key, ask.now))
			return refuse('stale', 403, 'This script is more than a week old, or was not handed out by Zafra.');
		const whole = beacon.visits.filter((visit) => !isImplausible(visit));
		if (whole.length < beacon.visits.length)
			this.writer.refuse(siteId, 'implausible', ask.now, beacon.visits.length - whole.length);
		if (!whole.length) return { status: 422, why: 'These figures cannot be those of a page view.' };
		const fault = faultOf(beacon, ask.userAgent);
		const all = whole.map((visit) => incoming(visit, { beacon, known: site, at: ask.now, fault }));
		const taken = fault
			? all
			: all.filter(({ bucket }) => this.#weights.takes(`${siteId} ${bucket}`, ask.address, ask.now));
		if (taken.length < all.length) this.writer.refuse(siteId, 'weight', ask.now, all.length - taken.length);
		if (!taken.length) return { status: 429, why: 'One address has sent its share of this page’s day.' };
		await this.writer.take(taken);
		return { status: 204 };
	}

	#siteOf(key: string, now: number): Known | null {
		const remembered = this.#known.get(key);
		if (remembered === null || (remembered && remembered.until > now)) return remembered;
		// A flood of made-up keys must not fill the memory, nor ask the database each time.
		if (this.#known.size > 1000) this.#known.clear();
		const source = sourceByKey(this.main, key);
		const found = source && {
			source,
			hosts: hostsOfSource(this.main, source),
			buckets: bucketsOfSite(this.main, source.siteId),
			until: now + FRESH_MS
		};
		this.#known.set(key, found);
		return found;
	}

	#isFlood({ address, now }: BeaconAsk, views: number): boolean {
		const minute = Math.floor(now / MINUTE_MS);
		if (minute !== this.#minute) {
			this.#minute = minute;
			this.#senders.clear();
			for (const [key, known] of this.#known) if (known === null) this.#known.delete(key);
		}
		const network = networkOf(address);
		const sent = (this.#senders.get(network) ?? 0) + views;
		this.#senders.set(network, sent);
		return sent > this.mostAMinute;
	}
}

/** @returns why it is none, in words */
function parse(body: string): Beacon | string {
	let value: unknown;
	try {
		value = JSON.parse(body);
	} catch {
		return 'The body is not JSON.';
	}
	const read = v.safeParse(Beacon, value);
	if (read.success) return read.output;
	const { path, message } = issuesOf(read.issues)[0]!;
	return `${path || 'The beacon'}: ${message}`;
}

function faultOf({ automated }: Beacon, userAgent: string): VisitFault | null {
	if (isBotAgent(userAgent)) return 'bot';
	return automated ? 'automated' : null;
}

function incoming(
	visit: Visit,
	{
		beacon: { device, network },
		known: { source, buckets },
		at,
		fault
	}: { beacon: Beacon; known: Known; at: number; fault: VisitFault | null }
): IncomingVisit {
	const { timings, goals } = source.settings;
	const names = new Set(timings.map(({ name }) => name));
	const own = Object.entries(visit.timings).filter(([name]) => names.has(name));
	const reached = visit.goals.filter((goal) => goals.includes(goal));
	const bucket = bucketOfPath(visit.path, buckets);
	// A page of the list is named by its own path; elsewhere a part of it may name somebody.
	const path = buckets.pages.has(bucket) ? visit.path : withoutIds(visit.path);
	const accepted = { ...visit, path, timings: Object.fromEntries(own), goals: reached };
	return { siteId: source.siteId, bucket, device, network, at, fault, visit: accepted };
}
