/** Ranks of each run of a standing, worked out once after it, by the lab between loads. */
import { METRIC_IDS, type MetricId } from '$core/metrics/catalogue';
import { sharesByKind } from '$core/load/requestList';
import { sharesOf, type OwnerShare } from '$core/load/owners';
import { practicesOf, type LateLoad, type PracticeCell } from '$core/standings/practices';
import { rankPages, type Ranked } from '$core/standings/ranks';
import { timingIn, timingKey, type Setting, type TimingKey } from '$core/watch/reading';
import type { PageTrouble } from '$core/watch/trouble';
import { cdnHostsOf } from '../clients/sites';
import type { Db } from '../db/connection';
import { findRecord } from '../loads/loads';
import { lateLoadsOf } from '../watch/blocks';
import { figuresOfWatch, readingsOfWatch, type StoredFigures } from '../watch/readings';
import { findWatch, type Watch } from '../watch/watches';
import { findDerived, saveDerived } from '../work/derived';

export const RANKS_VERSION = '2';

export type RankedMetric = MetricId | TimingKey;

export interface RunRanks {
	reading: number;
	at: string;
	condition: string;
	/** By metric. */
	ranks: Partial<Record<RankedMetric, Ranked[]>>;
	troubles: { page: number; trouble: PageTrouble }[];
	/** Of the first page that was measured: pages of a run share lab and browser. */
	setting: Setting | null;
}

/** What the middle load of a page shows in the newest run. */
export interface PageContent {
	page: number;
	condition: string;
	load: number;
	practices: PracticeCell[];
	owners: Pick<OwnerShare, 'id' | 'name' | 'kind' | 'wireBytes' | 'requests'>[];
	kinds: { kind: string; wireBytes: number; requests: number }[];
}

export interface StandingRanks {
	runs: RunRanks[];
	content: PageContent[];
}

const subjectOf = (id: number) => `watch:${id}` as const;

export function findRanks(db: Db, id: number): StandingRanks | null {
	return findDerived<StandingRanks>(db, subjectOf(id), 'ranks', RANKS_VERSION, '')?.body ?? null;
}

export function deriveRanks(db: Db, id: number): void {
	const watch = findWatch(db, id);
	if (!watch) return;
	const known = new Map((findRanks(db, id)?.runs ?? []).map((run) => [`${run.reading}/${run.condition}`, run]));
	const figures = figuresOfWatch(db, id);
	const done = readingsOfWatch(db, id).filter(({ state }) => state === 'done');
	const runs = done.flatMap(({ id: reading, plannedAt }) =>
		watch.settings.conditions.flatMap((condition) => {
			const own = figures.filter((stored) => stored.readingId === reading && stored.conditionId === condition);
			// What was worked out of a run stays: its loads do not change.
			return own.length ? (known.get(`${reading}/${condition}`) ?? runOf(reading, plannedAt, condition, own)) : [];
		})
	);
	const newest = done.at(-1)?.id;
	const content = figures
		.filter(({ readingId }) => readingId === newest)
		.flatMap((stored) => contentOf(db, watch, stored));
	saveDerived(db, subjectOf(id), 'ranks', RANKS_VERSION, '', { runs, content } satisfies StandingRanks);
}

function runOf(reading: number, at: string, condition: string, own: readonly StoredFigures[]): RunRanks {
	const metrics = metricsIn(own);
	const most = Math.max(0, ...own.flatMap(({ rounds }) => rounds));
	const ranks = Object.fromEntries(
		metrics.map((metric) => [
			metric,
			rankPages(
				metric,
				own.map(({ watchedPageId, figures, rounds }) => ({
					page: watchedPageId,
					byRound: byRound(figures[metric] ?? [], rounds, most)
				})),
				reading
			)
		])
	);
	return {
		reading,
		at,
		condition,
		ranks,
		troubles: own.flatMap(({ watchedPageId, trouble }) => (trouble ? [{ page: watchedPageId, trouble }] : [])),
		setting: own.find(({ setting }) => setting !== null)?.setting ?? null
	};
}

/** Of the catalogue those that any page has, then the pages' own timings. */
function metricsIn(own: readonly StoredFigures[]): RankedMetric[] {
	const keys = new Set(own.flatMap(({ figures }) => Object.keys(figures)));
	const timings = [...keys].flatMap((key) => timingIn(key) ?? []).sort();
	return [...METRIC_IDS.filter((id) => keys.has(id)), ...timings.map(timingKey)];
}

function byRound(figures: readonly (number | null)[], rounds: readonly number[], most: number): (number | null)[] {
	const all = new Array<number | null>(most).fill(null);
	rounds.forEach((round, i) => (all[round - 1] = figures[i] ?? null));
	return all;
}

function contentOf(db: Db, { clientId }: Watch, stored: StoredFigures): PageContent[] {
	const { watchedPageId, conditionId, loadId } = stored;
	const record = loadId === null ? null : findRecord(db, loadId);
	if (!record || record.status !== 'ok') return [];
	const { host } = new URL(record.finalUrl || record.url);
	const cdnHosts = cdnHostsOf(db, clientId, host);
	const requests = record.requests.filter(({ during }) => during === 'load');
	const late = lateLoadsOf(db, stored).flatMap((id): LateLoad[] => {
		const lateRecord = findRecord(db, id);
		return lateRecord?.status === 'ok' ? [{ id, record: lateRecord }] : [];
	});
	const kinds = sharesByKind(requests).map(({ kind, wireBytes, requests: count }) => ({
		kind,
		wireBytes,
		requests: count
	}));
	return [
		{
			page: watchedPageId,
			condition: conditionId,
			load: loadId!,
			practices: practicesOf(record, late),
			owners: sharesOf(requests, host, cdnHosts).map(({ id, name, kind, wireBytes, requests: count }) => ({
				id,
				name,
				kind,
				wireBytes,
				requests: count
			})),
			kinds
		}
	];
}
