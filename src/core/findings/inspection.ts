/** One load as the rules look at it. */
import { normalisedPath } from '../compare/digest';
import type { ImageFact, LoadRecord, RequestRecord } from '../load/record/record';
import { hasFailed } from '../load/requests/requestList';
import { ownerOf, type Owner } from '../load/requests/owners';
import type { BodyFacts } from './bodyFacts';
import type { Evidence, Resource } from './finding';
import { NO_EVIDENCE } from './finding';

/** Rules about bytes speak from 5 kB or 1 % of the page's bytes, whichever is larger (house; the design's line). */
const LEAST_BYTES = 5000;
const LEAST_SHARE = 0.01;

export interface Inspection {
	record: LoadRecord;
	/** Went to the network while the page loaded, and were answered. */
	requests: RequestRecord[];
	/** All that were asked while the page loaded, answered or not. */
	asked: RequestRecord[];
	/** The document that was shown. */
	document: RequestRecord | null;
	/** What the largest element waited for; null for text. */
	largest: RequestRecord | null;
	images: ImageFact[];
	/** Device pixels in a CSS pixel. */
	pixelRatio: number;
	/** The line's round trip, ms; null where it is not known. */
	roundTripMs: number | null;
	/** Less than this is not worth a line. */
	leastBytes: number;
	ownerOf(host: string): Owner;
	/** What was worked out of what came; null where it is not known. */
	factsOf(request: Pick<RequestRecord, 'url'>): BodyFacts | null;
	/** What is written down of a host of others. */
	noteOf(host: string): HostKnown | null;
}

/** Of the client's register of third parties. */
export interface HostKnown {
	purpose: string;
	isConfirmed: boolean;
	/** Something of it was seen on a page. */
	isSeen: boolean;
}

/** What is known beside the record. */
export interface Beside {
	facts?: (url: string) => BodyFacts | null;
	hosts?: (host: string) => HostKnown | null;
}

/** @param cdnHosts hosts that the site names as its own CDN */
export function inspect(
	record: LoadRecord,
	cdnHosts: readonly string[] = [],
	{ facts = () => null, hosts = () => null }: Beside = {}
): Inspection {
	const siteHost = new URL(record.finalUrl || record.url).host;
	const asked = record.requests.filter(({ during }) => during === 'load');
	const requests = asked.filter((request) => !hasFailed(request) && !request.fromCache && !request.redirectTo);
	const bytes = requests.reduce((sum, { wireBytes }) => sum + (wireBytes ?? 0), 0);
	const owners = new Map<string, Owner>();
	return {
		record,
		asked,
		requests,
		document: requests.find(({ type }) => type === 'document') ?? null,
		largest: (record.lcp?.url && requests.find(({ url }) => url === record.lcp!.url)) || null,
		images: record.page?.images ?? [],
		pixelRatio: record.conditions?.device.pixelRatio ?? 1,
		roundTripMs: record.conditions?.network.roundTripMs ?? null,
		leastBytes: Math.max(LEAST_BYTES, LEAST_SHARE * bytes),
		factsOf: ({ url }) => facts(url),
		noteOf: hosts,
		ownerOf(host) {
			const owner = owners.get(host) ?? ownerOf(host, siteHost, cdnHosts);
			owners.set(host, owner);
			return owner;
		}
	};
}

/** A file by its host and its path without what changes from build to build. */
export function addressResource(url: string): Resource {
	const { hostname } = new URL(url);
	return { kind: 'address', name: url, key: `${hostname}${normalisedPath(url)}` };
}

/** Of what a host does with all of its files. */
export const hostResource = (host: string): Resource => ({ kind: 'owner', name: host, key: host });

/** The last parts of some addresses, at most three. */
export const shortList = (requests: readonly Pick<RequestRecord, 'url'>[]): string =>
	requests
		.slice(0, 3)
		.map(({ url }) => new URL(url).pathname.split('/').at(-1) || new URL(url).host)
		.join(', ');

export const selectorResource = (selector: string): Resource => ({ kind: 'selector', name: selector, key: selector });
export const ownerResource = ({ id, name }: Owner): Resource => ({ kind: 'owner', name, key: id });
/** Of the page as a whole. */
export const pageResource = (key: string): Resource => ({ kind: 'page', name: key, key });

export const seenIn = ({ id, startMs }: Pick<RequestRecord, 'id' | 'startMs'>): Evidence => ({
	...NO_EVIDENCE,
	request: id,
	atMs: startMs
});

/** Bytes on the wire that a share of a decoded file stands for. */
export function wireOf(
	{ wireBytes, decodedBytes }: Pick<RequestRecord, 'wireBytes' | 'decodedBytes'>,
	decoded: number
) {
	if (wireBytes === null || !decodedBytes) return 0;
	return Math.round(wireBytes * Math.min(1, decoded / decodedBytes));
}

/** Ended before a moment; unfinished ones did not. */
export const endedBy = ({ endMs }: Pick<RequestRecord, 'endMs'>, atMs: number | null): boolean =>
	endMs !== null && atMs !== null && endMs <= atMs;
