/** What a trial's evidence needs of one load, small enough to hold hundreds of them at once. */
import { sum } from 'd3-array';
import { compressionOf, headerOf, servedFrom } from '../load/requests/delivery';
import { ownedTasks, timeByOwner } from '../load/vitals/mainThread';
import { ownerOf, type Owner } from '../load/requests/owners';
import { hasFailed, kindOf } from '../load/requests/requestList';
import type { LoadRecord, RequestRecord } from '../load/record/record';
import { shiftWindows } from '../load/vitals/vitals';
import { scoreOf } from '../metrics/score';
import type { Figures } from '../metrics/catalogue';

/** All requests of a load that count as the same file. */
export interface FileDigest {
	/** The same in every arm: a site's own host and what changes from build to build are left out. */
	key: string;
	name: string;
	owner: Owner;
	kind: string;
	count: number;
	wireBytes: number;
	decodedBytes: number;
	/** br, gzip, ... or "none"; of the first of them. */
	encoding: string;
	bodyHash: string | null;
	durationMs: number;
	blocking: boolean;
}

export interface LoadDigest {
	loadId: number;
	armId: number;
	conditionId: string;
	round: number;
	startedAt: string;
	figures: Figures;
	/** The page's own User Timing: marks by their time, measures by their length; the first of a name, ms. */
	timings: Record<string, number>;
	files: FileDigest[];
	/** Blocking time by owner id; the parts add up to TBT. */
	blocking: { owner: Owner; ms: number }[];
	/** Parts of LCP in ms that add up to it; null without LCP. */
	lcpParts: { firstByte: number; resourceDelay: number; resourceLoad: number; renderDelay: number } | null;
	/** The file that LCP waited for, and its loading in two parts that add up to it; null for text. */
	lcpResource: { name: string; waitingMs: number; receivingMs: number } | null;
	lcpElement: string | null;
	/** CLS by element; adds up to CLS. */
	shifts: { element: string; value: number }[];
	/** Fully loaded, by whose responses made it last; adds up to it. */
	tail: { owner: Owner; ms: number }[];
	/** Points that each metric of the recipe costs; add up to 100 minus the score. */
	scoreCosts: { metric: string; cost: number }[];
	heldBack: LoadRecord['heldBack'];
	/** What the acts of its steps set off; null without steps. */
	journey: { documents: number; requests: number; wireBytes: number } | null;
	facts: FairFacts;
}

/** What must be level between arms. */
export interface FairFacts {
	browser: string;
	machineSpeed: number | null;
	status: number | null;
	redirects: number;
	documentEncoding: string;
	documentCache: 'hit' | 'miss' | 'unknown';
	/** Share of the site's own text bytes that came compressed; null without any. */
	compressedShare: number | null;
	protocol: string | null;
	server: string | null;
	ownCdn: boolean;
	overlay: string | null;
	fonts: string[];
	words: string;
	title: string;
	consoleErrors: string[];
	failedRequests: string[];
	failedStep: string | null;
	stepsRun: number;
	thirdParties: string[];
}

const HASHED = /(^|[._-])[0-9a-f]{8,}(?=[._-]|$)/gi;

/** Path without what changes from build to build and from visit to visit. */
export function normalisedPath(url: string): string {
	const { pathname } = new URL(url);
	return pathname.replace(HASHED, '$1#').replace(/\d{6,}/g, '#');
}

/**
 * The same file in every arm has the same key: own hosts are one, queries count for nothing, hashes are blotted out.
 */
export function fileKey(request: Pick<RequestRecord, 'url' | 'type'>, owner: Owner, isDocument: boolean): string {
	if (isDocument) return 'own document';
	const path = normalisedPath(request.url);
	if (owner.kind === 'third-party') return `${new URL(request.url).hostname}${path}`;
	return `own ${path}`;
}

export function digestLoad(
	record: LoadRecord,
	place: { loadId: number; armId: number; conditionId: string; round: number },
	cdnHosts: readonly string[] = []
): LoadDigest {
	const siteHost = new URL(record.finalUrl || record.url).host;
	const requests = record.requests.filter((request) => request.during === 'load');
	const owners = new Map<string, Owner>();
	const whose = (host: string) => {
		let owner = owners.get(host);
		if (!owner) owners.set(host, (owner = ownerOf(host, siteHost, cdnHosts)));
		return owner;
	};
	const document = requests.find((request) => request.type === 'document' && !request.redirectTo) ?? null;
	return {
		...place,
		startedAt: record.startedAt,
		figures: record.figures,
		timings: timingsIn(record),
		files: filesOf(requests, document, whose),
		blocking: timeByOwner(ownedTasks(record, siteHost, cdnHosts))
			.filter((time) => time.blockingMs > 0)
			.map((time) => ({ owner: time.owner, ms: time.blockingMs })),
		lcpParts: lcpPartsOf(record),
		lcpResource: lcpResourceOf(record),
		lcpElement: record.lcp?.selector ?? null,
		shifts: shiftsByElement(record),
		tail: tailOf(record, requests, whose),
		scoreCosts: scoreOf(record.figures).parts.flatMap(({ metric, cost }) => (cost === null ? [] : [{ metric, cost }])),
		heldBack: record.heldBack,
		journey: journeyOf(record),
		facts: factsOf(record, requests, document, whose)
	};
}

/** User Timing of a load: marks by their time, measures by their length; the first of a name. Elements by their own. */
export function timingsIn({ marks, shown }: Pick<LoadRecord, 'marks' | 'shown'>): Record<string, number> {
	const timings: Record<string, number> = {};
	for (const { name, atMs } of shown) if (atMs !== null) timings[name] = atMs;
	for (const { name, atMs, durationMs } of marks) timings[name] ??= durationMs ?? atMs;
	return timings;
}

function journeyOf({ steps }: LoadRecord): LoadDigest['journey'] {
	if (!steps.length) return null;
	return {
		documents: steps.filter(({ navigated }) => navigated).length,
		requests: sum(steps, ({ requests }) => requests),
		wireBytes: sum(steps, ({ wireBytes }) => wireBytes)
	};
}

/** Requests that went to the network, those for the same file together. */
function filesOf(
	requests: readonly RequestRecord[],
	document: RequestRecord | null,
	whose: (host: string) => Owner
): FileDigest[] {
	const files = new Map<string, FileDigest>();
	for (const request of requests.filter(({ fromCache, fromServiceWorker }) => !fromCache && !fromServiceWorker)) {
		const file = fileOf(request, request === document, whose(request.host));
		const existing = files.get(file.key);
		if (!existing) {
			files.set(file.key, file);
			continue;
		}
		existing.count++;
		existing.wireBytes += file.wireBytes;
		existing.decodedBytes += file.decodedBytes;
		existing.durationMs = Math.max(existing.durationMs, file.durationMs);
	}
	return [...files.values()];
}

function fileOf(request: RequestRecord, isDocument: boolean, owner: Owner): FileDigest {
	const lastOfPath = normalisedPath(request.url).split('/').filter(Boolean).pop();
	return {
		key: fileKey(request, owner, isDocument),
		name: isDocument ? 'the document' : (lastOfPath ?? request.host),
		owner,
		kind: kindOf(request),
		count: 1,
		wireBytes: request.wireBytes ?? 0,
		decodedBytes: request.decodedBytes ?? 0,
		encoding: compressionOf(request).encoding ?? 'none',
		bodyHash: request.body?.hash ?? null,
		durationMs: (request.endMs ?? request.startMs) - request.startMs,
		blocking: request.renderBlocking !== null
	};
}

/**
 * LCP as first byte, wait until its resource was asked for, its loading, and the wait until it was painted; text has
 * no resource. The parts add up to LCP. Source: web.dev, "Optimize Largest Contentful Paint" (sub-parts).
 */
export function lcpPartsOf(record: Pick<LoadRecord, 'lcp' | 'figures' | 'requests'>): LoadDigest['lcpParts'] {
	const { lcp, figures } = record;
	if (!lcp || figures.ttfb === null) return null;
	const firstByte = Math.min(figures.ttfb, lcp.atMs);
	const resource = requestOfLcp(record);
	if (!resource) return { firstByte, resourceDelay: 0, resourceLoad: 0, renderDelay: lcp.atMs - firstByte };
	const { start, end } = loadingOf(resource, firstByte, lcp.atMs);
	return { firstByte, resourceDelay: start - firstByte, resourceLoad: end - start, renderDelay: lcp.atMs - end };
}

const requestOfLcp = ({ lcp, requests }: Pick<LoadRecord, 'lcp' | 'requests'>) =>
	lcp?.url ? requests.find((request) => request.url === lcp.url && request.endMs !== null) : undefined;

/** The part of a request that lies between the document's first byte and LCP, ms since the navigation. */
function loadingOf(request: RequestRecord, firstByte: number, lcpMs: number): { start: number; end: number } {
	const start = Math.min(lcpMs, Math.max(firstByte, request.startMs));
	return { start, end: Math.min(lcpMs, Math.max(start, request.endMs!)) };
}

function lcpResourceOf(record: Pick<LoadRecord, 'lcp' | 'figures' | 'requests'>): LoadDigest['lcpResource'] {
	const { lcp, figures } = record;
	const request = requestOfLcp(record);
	if (!lcp || !request || figures.ttfb === null) return null;
	const { start, end } = loadingOf(request, Math.min(figures.ttfb, lcp.atMs), lcp.atMs);
	const answered = Math.min(end, Math.max(start, request.responseMs ?? start));
	const name = normalisedPath(request.url).split('/').filter(Boolean).pop() ?? request.host;
	return { name, waitingMs: answered - start, receivingMs: end - answered };
}

/** The largest window's shifts, each shared among its elements by the area that they cover and leave. */
function shiftsByElement({ shifts }: LoadRecord): LoadDigest['shifts'] {
	const window = shiftWindows(shifts).sort((a, b) => b.value - a.value)[0];
	if (!window) return [];
	const values = new Map<string, number>();
	for (const shift of shifts) {
		if (shift.recentInput || shift.atMs < window.startMs || shift.atMs > window.endMs) continue;
		const areas = shift.elements.map(({ from, to }) => from.width * from.height + to.width * to.height);
		const whole = areas.reduce((sum, area) => sum + area, 0);
		if (!shift.elements.length) values.set('(removed)', (values.get('(removed)') ?? 0) + shift.value);
		shift.elements.forEach(({ selector }, i) => {
			const part = whole > 0 ? areas[i]! / whole : 1 / areas.length;
			values.set(selector, (values.get(selector) ?? 0) + shift.value * part);
		});
	}
	return [...values].map(([element, value]) => ({ element, value }));
}

/** Whose responses made "fully loaded" last: the site's own end first, then each later third party's stretch beyond. */
function tailOf(
	record: LoadRecord,
	requests: readonly RequestRecord[],
	whose: (host: string) => Owner
): LoadDigest['tail'] {
	const { full } = record.figures;
	if (full === null) return [];
	const ends = new Map<string, { owner: Owner; lastMs: number }>();
	for (const request of requests) {
		if (request.endMs === null || request.endMs > full + 0.01) continue;
		const owner = whose(request.host);
		const id = owner.kind === 'third-party' ? owner.id : 'own';
		const existing = ends.get(id) ?? { owner, lastMs: 0 };
		existing.lastMs = Math.max(existing.lastMs, request.endMs);
		ends.set(id, existing);
	}
	const own = ends.get('own');
	const parts: LoadDigest['tail'] = own ? [{ owner: own.owner, ms: own.lastMs }] : [];
	let reached = own?.lastMs ?? 0;
	for (const { owner, lastMs } of [...ends]
		.filter(([id]) => id !== 'own')
		.map(([, one]) => one)
		.sort((a, b) => a.lastMs - b.lastMs)) {
		if (lastMs <= reached) continue;
		parts.push({ owner, ms: lastMs - reached });
		reached = lastMs;
	}
	// The load event can come after the last response.
	if (full > reached)
		parts.push({
			owner: { id: 'page', name: 'the page itself, until its load event', kind: 'own' },
			ms: full - reached
		});
	return parts;
}

function factsOf(
	record: LoadRecord,
	requests: readonly RequestRecord[],
	document: RequestRecord | null,
	whose: (host: string) => Owner
): FairFacts {
	const text = requests.filter(
		(request) => whose(request.host).kind !== 'third-party' && compressionOf(request).expected
	);
	const bytes = text.reduce((sum, item) => sum + (item.decodedBytes ?? 0), 0);
	const squeezed = text
		.filter((item) => compressionOf(item).encoding)
		.reduce((sum, item) => sum + (item.decodedBytes ?? 0), 0);
	const failedStep = record.steps.find((step) => step.status === 'failed');
	return {
		browser: record.environment.browser,
		machineSpeed: record.environment.machineSpeed.before,
		status: document?.status ?? null,
		redirects: record.redirects.length,
		documentEncoding: document ? (compressionOf(document).encoding ?? 'none') : 'unknown',
		documentCache: (document && servedFrom(document)) ?? 'unknown',
		compressedShare: bytes > 0 ? squeezed / bytes : null,
		protocol: document?.protocol ?? null,
		server: document ? (headerOf(document, 'server') ?? null) : null,
		ownCdn: requests.some((request) => whose(request.host).kind === 'own-cdn'),
		overlay: record.page?.overlay?.text ?? null,
		fonts: [
			...new Set((record.page?.fonts ?? []).filter((font) => font.status === 'loaded').map((font) => font.family))
		].sort(),
		words: record.page?.text ?? '',
		title: record.page?.title ?? '',
		consoleErrors: record.page?.consoleErrors ?? [],
		failedRequests: requests
			.filter((request) => hasFailed(request) && !/^blocked/.test(request.failed ?? ''))
			.map((request) => fileKey(request, whose(request.host), request === document)),
		failedStep: failedStep ? `${failedStep.number}. ${failedStep.words}` : null,
		stepsRun: record.steps.length,
		thirdParties: [
			...new Set(
				requests
					.map((request) => whose(request.host))
					.filter((owner) => owner.kind === 'third-party')
					.map((owner) => owner.name)
			)
		].sort()
	};
}
