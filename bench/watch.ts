/**
 * Watches: what lists and pages take to serve with a year of 200 pages, and
 * standings of a year; what a block costs beside its loads.
 */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import * as v from 'valibot';
import { newClient } from '$core/clients/client';
import { SiteInput } from '$core/clients/site';
import type { MetricId } from '$core/metrics/catalogue';
import { StandingInput, WatchInput } from '$core/watch/input';
import { normalFrom, seededRandom } from '$core/stats/random';
import { createClient } from '../src/lib/server/rooms/clients/commands';
import { insertSite } from '../src/lib/server/rooms/clients/queries/sites';
import { openDatabase, sql, type Db } from '../src/lib/server/base/db/connection';
import { requestedOrder } from '../src/lib/server/rooms/loads/requested';
import { pastePages } from '../src/lib/server/rooms/pages/commands';
import { listPages } from '../src/lib/server/rooms/pages/queries/pages';
import { deriveRanks } from '../src/lib/server/rooms/standings/ranks';
import { standingList, standingView } from '../src/lib/server/rooms/standings/view';
import { requestReading, storeReadingLoad } from '../src/lib/server/rooms/watch/blocks';
import { createWatch } from '../src/lib/server/rooms/watch/commands';
import { deriveHistory } from '../src/lib/server/rooms/watch/history';
import { watchedPageView } from '../src/lib/server/rooms/watch/pageView';
import { endReading, insertReading, saveFigures } from '../src/lib/server/rooms/watch/queries/readings';
import { watchList } from '../src/lib/server/rooms/watch/view';
import { existingWatch } from '../src/lib/server/rooms/watch/watches';
import { pagesOfWatch } from '../src/lib/server/rooms/watch/queries/watches';
import { finishJob, leaseJob } from '../src/lib/server/base/queue/jobs';
import { measuredLoad } from '../test/support/queue';
import { percent, printTable, type Row } from './table';

const PAGES = 200;
const WEEKS = 52;
const SETTING = { browser: 'Chromium 140', conditions: 'x', recipe: 'zafra-2', lab: 'here' };
const FIGURES: Partial<Record<MetricId, number>> = {
	score: 80,
	lcp: 2000,
	cls: 0.05,
	tbt: 200,
	wire: 500_000,
	fcp: 900
};

function fill(db: Db, id: number, loads: number): void {
	const random = seededRandom(id);
	const { conditions } = existingWatch(db, id, existingKind(db, id)).settings;
	db.transaction(() => {
		for (let week = 0; week < WEEKS; week++) {
			const at = new Date(Date.parse('2025-11-24T04:00:00Z') + week * 7 * 86_400_000).toISOString();
			const reading = insertReading(db, { watchId: id, why: 'schedule', plannedAt: at, missed: 0 });
			for (const { id: page } of pagesOfWatch(db, id))
				for (const condition of conditions)
					saveFigures(db, {
						readingId: reading,
						watchedPageId: page,
						conditionId: condition,
						setting: SETTING,
						figures: Object.fromEntries(
							Object.entries(FIGURES).map(([metric, middle]) => [
								metric,
								Array.from({ length: loads }, () => middle * Math.exp(0.1 * normalFrom(random)))
							])
						),
						rounds: Array.from({ length: loads }, (_, i) => i + 1),
						trouble: null,
						disturbed: 0,
						loadId: null
					});
			endReading(db, reading, at);
		}
	})();
}

const existingKind = (db: Db, id: number) =>
	sql<{ kind: 'watch' | 'standing' }>(db, 'SELECT kind FROM watch WHERE id = ?').get(id)!.kind;

function middleMs(work: () => unknown): number {
	work();
	const times = Array.from({ length: 15 }, () => {
		const begun = performance.now();
		JSON.stringify(work());
		return performance.now() - begun;
	}).sort((a, b) => a - b);
	return times[Math.floor(times.length / 2)]!;
}

function serving(db: Db, clientId: number): Row[] {
	const row = (what: string, work: () => unknown): Row => {
		const ms = middleMs(work);
		return { what, measured: `${ms.toFixed(0)} ms`, limit: 'under 100 ms', holds: ms < 100 };
	};
	const own = sql<{ id: number }>(db, "SELECT id FROM watch WHERE kind = 'watch'").get()!.id;
	const page = pagesOfWatch(db, own)[0]!.id;
	const standing = sql<{ id: number }>(db, "SELECT id FROM watch WHERE kind = 'standing'").get()!.id;
	return [
		row(`list of ${PAGES} pages, ${WEEKS} weeks`, () => watchList(db, clientId, 'month')),
		row('one page’s history', () => watchedPageView(db, own, page)),
		row('five standings of six sites', () => standingList(db, clientId)),
		row('one standing over a year', () => standingView(db, standing))
	];
}

/** Loads of the recorded demonstration take this long in the middle (s), waits and rest among them. */
const LOAD_S = 5;

function overhead(db: Db, id: number): Row {
	let others = 0;
	let loads = 0;
	const begun = performance.now();
	requestReading(db, existingWatch(db, id, 'watch'), { why: 'demand' });
	others += performance.now() - begun;
	for (;;) {
		const from = performance.now();
		const job = leaseJob(db, 'lab');
		if (!job || job.kind !== 'load') break;
		const { version, ...order } = requestedOrder(db, job);
		others += performance.now() - from;
		const measured = measuredLoad({ url: order.url, finalUrl: order.url });
		const stored = performance.now();
		db.transaction(() => {
			finishJob(db, job, 'lab');
			storeReadingLoad(db, job, version, measured);
		})();
		others += performance.now() - stored;
		loads++;
	}
	const share = others / 1000 / (loads * LOAD_S);
	return {
		what: `a block of ${loads} loads: time beside them, of ${LOAD_S} s each`,
		measured: percent(share, 2),
		limit: 'at most 5 %',
		holds: share <= 0.05
	};
}

const folder = mkdtempSync(join(tmpdir(), 'zafra-bench-watch-'));
const db = openDatabase(folder);
const clientId = createClient(db, newClient('Bench'));
const site = (host: string, role: 'own' | 'competitor') =>
	insertSite(db, clientId, v.parse(SiteInput, { host, name: host, role }));
const own = site('own.test', 'own');
pastePages(db, own, Array.from({ length: PAGES }, (_, i) => `https://own.test/page-${i}`).join('\n'));
const pages = listPages(db, { siteId: own }, PAGES).map(({ id }) => id);
const watched = createWatch(db, { ...v.parse(WatchInput, { clientId, name: 'All', pages }), kind: 'watch' });
fill(db, watched, 5);
const derived = performance.now();
deriveHistory(db, watched);
const derivedS = (performance.now() - derived) / 1000;
const rivals = Array.from({ length: 5 }, (_, i) => {
	const id = site(`rival-${i}.test`, 'competitor');
	pastePages(db, id, Array.from({ length: 5 }, (__, type) => `https://rival-${i}.test/type-${type}`).join('\n'));
	return listPages(db, { siteId: id }, 5).map((page) => page.id);
});
for (let type = 0; type < 5; type++) {
	const input = { clientId, name: `Type ${type}`, pages: [pages[type]!, ...rivals.map((of) => of[type]!)] };
	const id = createWatch(db, { ...v.parse(StandingInput, input), kind: 'standing' });
	fill(db, id, 10);
	deriveRanks(db, id);
}
const small = createWatch(db, {
	...v.parse(WatchInput, { clientId, name: 'Twenty', pages: pages.slice(0, 20) }),
	kind: 'watch'
});
printTable('Watches: served from a year', [
	...serving(db, clientId),
	{ what: 'working out a year of 200 pages anew, by the lab between loads', measured: `${derivedS.toFixed(1)} s` },
	overhead(db, small)
]);
db.close();
rmSync(folder, { recursive: true, force: true });
