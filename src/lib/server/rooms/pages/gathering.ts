/** What a lab gathers of a site between loads, and how far it is: kept beside the site, read by its page. */
import * as v from 'valibot';
import { WebAddress } from '$core/load/requests/addressInput';
import { skeletonOf } from '$core/pages/skeleton';
import { patternOf, typeOfAddress } from '$core/pages/types';
import type { GatherProblem } from '$core/pages/gathering';
import type { SitePage } from '$core/pages/page';
import { hostsOf } from '../clients/sites';
import { nowIso, type Db } from '../../base/db/connection';
import { NotPossible } from '../../base/refusal';
import type { Outward } from '../../base/outward';
import { findDerived, saveDerived } from '../../base/queue/derived';
import { hasOpenJob, insertJob, PRIORITY } from '../../base/queue/jobs';
import { savePages, type Saved } from './queries/changes';
import { crawl, fetchPage, MOST_CRAWLED, readMarkup } from './crawl';
import { saveProposals } from './proposals';
import { pagesToChoose, saveSkeleton } from './queries/pages';
import type { Gathered } from './gathered';
import { gatherSitemaps } from './sitemaps';
import { existingSite } from '../clients/view';

export const GatherOrder = v.variant(
	'what',
	[
		v.object({ what: v.literal('sitemap'), url: WebAddress }),
		v.object({
			what: v.literal('crawl'),
			url: WebAddress,
			most: v.optional(
				v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(MOST_CRAWLED, `At most ${MOST_CRAWLED} pages.`)),
				100
			)
		}),
		v.object({ what: v.literal('types') })
	],
	'Gather by “sitemap”, “crawl” or “types”.'
);
export type GatherOrder = v.InferOutput<typeof GatherOrder>;

export const parseGatherOrder = (order: unknown): GatherOrder => v.parse(GatherOrder, order);

/** How far a gathering is, or how it ended. */
export interface Gathering {
	what: GatherOrder['what'] | 'file' | 'traffic' | 'pasted';
	/** UTC ISO of the last news. */
	at: string;
	isDone: boolean;
	/** Files or pages that were asked for, and pages that were found. */
	asked: number;
	found: number;
	saved: Saved | null;
	left: Gathered['left'] | null;
	problems: GatherProblem[];
}

const VERSION = '1';
const subjectOf = (siteId: number) => ({ kind: 'site', id: siteId }) as const;
/** More faults say no more. */
const MOST_PROBLEMS = 50;

export function findGathering(db: Db, siteId: number): Gathering | null {
	return (
		findDerived<Gathering>(db, { subject: subjectOf(siteId), kind: 'gathering', version: VERSION, fingerprint: '' })
			?.body ?? null
	);
}

export function saveGathering(db: Db, siteId: number, gathering: Omit<Gathering, 'at'>): void {
	const problems = gathering.problems.slice(0, MOST_PROBLEMS);
	saveDerived(db, {
		subject: subjectOf(siteId),
		kind: 'gathering',
		version: VERSION,
		fingerprint: '',
		body: { ...gathering, problems, at: nowIso() }
	});
}

/** Whether a lab works on it, or will. */
export function isGathering(db: Db, siteId: number): boolean {
	return hasOpenJob(db, 'gather', subjectOf(siteId));
}

/** @throws NotPossible while another gathering of the site is under way @returns the id of the job */
export function requestGathering(db: Db, siteId: number, order: GatherOrder): number {
	return db
		.transaction(() => {
			existingSite(db, siteId);
			if (isGathering(db, siteId))
				throw new NotPossible(409, 'Pages of this site are being gathered already. Wait until that is done.');
			const blank = { asked: 0, found: 0, saved: null, left: null, problems: [], isDone: false };
			saveGathering(db, siteId, { what: order.what, ...blank });
			return insertJob(db, { kind: 'gather', subject: subjectOf(siteId), order, priority: PRIORITY.awaited });
		})
		.immediate();
}

export interface GatherAt {
	outward: Outward;
	goesOn(): boolean;
	persist<Result>(write: () => Result): Promise<Result>;
}

const CRAWL_PAGE_MS = 6000;
const MOST_MARKUP = 60;

export function longestGatherMs(order: GatherOrder): number {
	if (order.what === 'crawl') return order.most * CRAWL_PAGE_MS;
	return order.what === 'types' ? MOST_MARKUP * CRAWL_PAGE_MS : 600_000;
}

/** Gather, keep what was found, and say how it went. */
export async function gatherFor(db: Db, siteId: number, order: GatherOrder, at: GatherAt): Promise<void> {
	if (order.what === 'types') return gatherMarkup(db, siteId, at);
	const hosts = hostsOf(existingSite(db, siteId));
	const onProgress = progressOf(db, siteId, order.what, at);
	const gathered =
		order.what === 'sitemap'
			? await gatherSitemaps(order.url, hosts, at.outward, onProgress)
			: await crawl({ start: order.url, hosts, most: order.most, outward: at.outward, goesOn: at.goesOn, onProgress });
	await at.persist(() => keepGathered(db, siteId, order.what, gathered));
}

/** It took the lab down again and again: the site is not left as being gathered. */
export function giveUpGathering(db: Db, siteId: number, order: GatherOrder, times: number): void {
	const before = findGathering(db, siteId);
	saveGathering(db, siteId, {
		what: order.what,
		asked: before?.asked ?? 0,
		found: before?.found ?? 0,
		saved: null,
		left: null,
		problems: [{ where: 'url' in order ? order.url : 'the markup', fault: 'given-up', detail: String(times) }],
		isDone: true
	});
}

/** What was found goes to the site's pages. */
export function keepGathered(db: Db, siteId: number, what: 'sitemap' | 'crawl' | 'file', gathered: Gathered): Saved {
	return db.transaction(() => {
		const saved = savePages(db, siteId, gathered.pages, what === 'crawl' ? 'crawl' : 'sitemap');
		const { pages, files, left, problems } = gathered;
		saveGathering(db, siteId, { what, asked: files, found: pages.length, saved, left, problems, isDone: true });
		saveProposals(db, siteId);
		return saved;
	})();
}

/** News of a gathering are written at most once a second. */
const NEWS_EVERY_MS = 1000;

function progressOf(db: Db, siteId: number, what: GatherOrder['what'], at: GatherAt) {
	let last = 0;
	return async (requestCount: number, found: number) => {
		if (performance.now() - last < NEWS_EVERY_MS) return;
		last = performance.now();
		const news = { what, asked: requestCount, found, saved: null, left: null, problems: [], isDone: false };
		await at.persist(() => saveGathering(db, siteId, news));
	};
}

/** The markup of some pages of each kind of address, by which pages of one template are known. */
async function gatherMarkup(db: Db, siteId: number, at: GatherAt): Promise<void> {
	const problems: GatherProblem[] = [];
	const candidates = markupCandidates(pagesToChoose(db, siteId));
	const onProgress = progressOf(db, siteId, 'types', at);
	let fetched = 0;
	for (const { id, url } of candidates) {
		if (!at.goesOn()) break;
		const page = await fetchPage(url, at.outward, problems);
		const skeleton = page && readMarkup(() => skeletonOf(page.html), url, problems);
		if (skeleton) await at.persist(() => saveSkeleton(db, id, skeleton, nowIso()));
		await onProgress(++fetched, candidates.length);
	}
	await at.persist(() => {
		saveProposals(db, siteId);
		const found = candidates.length;
		saveGathering(db, siteId, {
			what: 'types',
			asked: fetched,
			found,
			saved: null,
			left: null,
			problems,
			isDone: true
		});
	});
}

/** Of each kind of address so many pages are looked at (house). */
const OF_A_KIND = 2;

/** Pages of which the address says too little first, then the busiest of each kind of address. */
export function markupCandidates(pages: readonly SitePage[]): SitePage[] {
	const ordered = [...pages].sort((a, b) => (b.visits ?? 0) - (a.visits ?? 0) || a.id - b.id);
	const isSilent = ({ url, type }: SitePage) => type === null && typeOfAddress(url) === null;
	const silent = ordered.filter(isSilent);
	const taken = new Map<string, number>();
	const fits = ({ url }: SitePage) => {
		const kind = patternOf(url);
		taken.set(kind, (taken.get(kind) ?? 0) + 1);
		return taken.get(kind)! <= OF_A_KIND;
	};
	const all = [...silent.filter(fits), ...ordered.filter((page) => !isSilent(page)).filter(fits)];
	return all.slice(0, MOST_MARKUP);
}
