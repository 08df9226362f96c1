/** Ranks of each run of a standing, worked out once after it, by the lab between loads. */
import { METRIC_IDS, type MetricId } from '$core/metrics/catalogue';
import { sharesByKind } from '$core/load/requests/requestList';
import { sharesOf, type OwnerShare } from '$core/load/requests/owners';
import { practicesOf, type LateLoad, type PracticeCell } from '$core/standings/practices';
import { rankRun, type Contest, type Ranked } from '$core/standings/ranks';
import { timingIn, timingKey, type Setting, type TimingKey } from '$core/watch/reading';
import type { PageTrouble } from '$core/watch/trouble';
import type { Db } from '../../base/db/connection';
import { findRecord } from '../loads/loads';
import { findDerived, saveDerived } from '../../base/queue/derived';
import { cdnHostsOf } from '../clients/view';
import { lateLoadsOf, figuresOfWatch, readingsOfWatch, type StoredFigures, findWatch, type Watch } from '../watch/view';

export const RANKS_VERSION = '5';

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

const subjectOf = (id: number) => ({ kind: 'watch', id }) as const;

export function findRanks(db: Db, id: number): StandingRanks | null {
	return (
		findDerived<StandingRanks>(db, { subject: subjectOf(id), kind: 'ranks', version: RANKS_VERSION, fingerprint: '' })
			?.body ?? null
	);
}

export function deriveRanks(db: Db, id: number): void {
	const watch = findWatch(db, id);
	if (!watch) return;
	const rankedRuns = new Map((findRanks(db, id)?.runs ?? []).map((run) => [`${run.reading}/${run.condition}`, run]));
	const figures = figuresOfWatch(db, id);
	const done = readingsOfWatch(db, id).filter(({ state }) => state === 'done');
	const runs = done.flatMap(({ id: reading, plannedAt }) => {
		const own = figures.filter(({ readingId }) => readingId === reading);
		const conditions = watch.settings.conditions.filter((id) => own.some(({ conditionId }) => conditionId === id));
		const worked = conditions.flatMap((condition) => rankedRuns.get(`${reading}/${condition}`) ?? []);
		// What was worked out of a run stays: its loads do not change.
		return worked.length === conditions.length ? worked : runsOf(watch, { reading, at: plannedAt, conditions }, own);
	});
	const newest = done.at(-1)?.id;
	const content = figures
		.filter(({ readingId }) => readingId === newest)
		.flatMap((stored) => contentOf(db, watch, stored));
	saveDerived(db, {
		subject: subjectOf(id),
		kind: 'ranks',
		version: RANKS_VERSION,
		fingerprint: '',
		body: { runs, content } satisfies StandingRanks
	});
}

interface Run {
	reading: number;
	at: string;
	conditions: readonly string[];
}

/** One run under each of its conditions: places are told at one level over all that the standing was asked about. */
function runsOf({ settings }: Watch, { reading, at, conditions }: Run, all: readonly StoredFigures[]): RunRanks[] {
	const most = Math.max(0, ...all.flatMap(({ rounds }) => rounds));
	const rankedMetrics = new Set<string>([
		...settings.metrics,
		...(settings.shown ?? []).map(({ name }) => timingKey(name))
	]);
	const contests = conditions.flatMap((condition) => {
		const own = all.filter(({ conditionId }) => conditionId === condition);
		return metricsIn(own).map((metric): Contest & { condition: string; metric: RankedMetric } => ({
			condition,
			metric,
			isJudged: rankedMetrics.has(metric),
			contestants: own.map(({ watchedPageId, figures, rounds }) => ({
				page: watchedPageId,
				byRound: byRound(figures[metric] ?? [], rounds, most)
			}))
		}));
	});
	const ranked = rankRun(contests, reading);
	return conditions.map((condition) => {
		const own = all.filter(({ conditionId }) => conditionId === condition);
		return {
			reading,
			at,
			condition,
			ranks: Object.fromEntries(
				contests.flatMap((contest, i) => (contest.condition === condition ? [[contest.metric, ranked[i]!]] : []))
			),
			troubles: own.flatMap(({ watchedPageId, trouble }) => (trouble ? [{ page: watchedPageId, trouble }] : [])),
			setting: own.find(({ setting }) => setting !== null)?.setting ?? null
		};
	});
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
