/** The history of a watch, worked out once after each reading, by the lab between loads. */
import { digestLoad } from '$core/compare/digest';
import { explainShift } from '$core/compare/why';
import type { MetricId } from '$core/metrics/catalogue';
import { blockOf } from '$core/watch/block';
import { findInHistory, type Change, type HistoryFindings } from '$core/watch/history';
import { measured, type PageHistory } from '$core/watch/reading';
import { PERIODS, readingBefore, sinceReading } from '$core/watch/since';
import { readingsAQuarter } from '$core/watch/schedule';
import { describeCause } from '$core/wording/causes';
import { existingClient } from '../clients/clients';
import type { Db } from '../../base/db/connection';
import { findRecord } from '../loads/loads';
import { findDerived, saveDerived } from '../../base/queue/derived';
import { PRIORITY, requestDerived } from '../../base/queue/jobs';
import { changeKey, type PageState, type WatchHistory } from './findings';
import { tellFindings } from './notices';

import { figuresOfWatch, readingsOfWatch, type StoredFigures } from './queries/readings';
import { historiesFrom } from './readings';
import { findWatch, pagesOfWatch, type Watch, kindOfWatch } from './queries/watches';
import { type Client, cdnHostsOf } from '../clients/view';

export { causesOf, type PageState, type WatchHistory } from './findings';

export const HISTORY_VERSION = '5';

/** The history of a watch, or the ranks of a standing, is worked out when the lab has nothing else to do. */
export function requestHistory(db: Db, watchId: number): void {
	const order = kindOfWatch(db, watchId) === 'standing' ? 'ranks' : 'history';
	// It may be waiting already: asked for before, or for a watch of that number that is gone.
	requestDerived(db, subjectOf(watchId), order, PRIORITY.catchUp);
}

const subjectOf = (id: number) => ({ kind: 'watch', id }) as const;

/** What was worked out last; null before the first reading. */
export function findHistory(db: Db, watchId: number): WatchHistory | null {
	return (
		findDerived<WatchHistory>(db, {
			subject: subjectOf(watchId),
			kind: 'history',
			version: HISTORY_VERSION,
			fingerprint: ''
		})?.body ?? null
	);
}

export function deriveHistory(db: Db, watchId: number): void {
	const watch = findWatch(db, watchId);
	if (!watch) return;
	const figures = figuresOfWatch(db, watchId);
	const readings = readingsOfWatch(db, watchId).filter(({ state }) => state === 'done');
	const histories = allHistories(db, watch, figures, readings);
	const { metrics, schedule } = watch.settings;
	const { margins } = existingClient(db, watch.clientId);
	const findings = findInHistory(histories, {
		metrics,
		margins,
		readingsAQuarter: readingsAQuarter(schedule, new Date(watch.createdAt))
	});
	const newest = new Map<string, StoredFigures>();
	for (const stored of figures) newest.set(`${stored.watchedPageId}/${stored.conditionId}`, stored);
	const history: WatchHistory = {
		...findings,
		readings: readings.length,
		states: histories.map((own) =>
			metricState(own, { stored: newest.get(`${own.page}/${own.condition}`)!, metrics, findings, margins })
		),
		causes: findCauses(db, {
			watch,
			changes: findings.changes,
			figures,
			causes: findHistory(db, watchId)?.causes ?? {}
		})
	};
	db.transaction(() => {
		saveDerived(db, {
			subject: subjectOf(watchId),
			kind: 'history',
			version: HISTORY_VERSION,
			fingerprint: '',
			body: history
		});
		tellFindings(db, { watch, pages: pagesOfWatch(db, watchId), readings, history });
	})();
}

/** A control that was replaced counts for the readings in which it was loaded. */
function allHistories(
	db: Db,
	{ id }: Watch,
	figures: readonly StoredFigures[],
	readings: readonly { id: number; plannedAt: string }[]
): PageHistory[] {
	const controls = pagesOfWatch(db, id).filter(({ role }) => role === 'control');
	const isControl = new Set(controls.map((page) => page.id));
	// Readings have one control each: to the history it is one page.
	const [first] = isControl;
	const merged = figures.map((stored) =>
		isControl.has(stored.watchedPageId) ? { ...stored, watchedPageId: first! } : stored
	);
	return historiesFrom(merged, readings, first ?? null);
}

function metricState(
	history: PageHistory,
	{
		stored,
		metrics,
		findings,
		margins
	}: { stored: StoredFigures; metrics: readonly MetricId[]; findings: HistoryFindings; margins: Client['margins'] }
): PageState {
	const { page, condition } = history;
	const own = findings.figures.filter((figure) => figure.page === page && figure.condition === condition);
	const last = history.readings.findLast(({ setting }) => setting !== null) ?? null;
	const middles = Object.fromEntries(
		Object.entries(last?.figures ?? {}).flatMap(([metric, values]) => {
			const block = blockOf(measured(values));
			return block ? [[metric, block.middle]] : [];
		})
	);
	const since = Object.fromEntries(
		PERIODS.flatMap((period) => {
			const before = readingBefore(history.readings, period);
			return before
				? [
						[
							period,
							{ at: before.at, results: sinceReading(history, { before, metrics, historyFindings: findings, margins }) }
						]
					]
				: [];
		})
	);
	return {
		page,
		condition,
		reading: last?.reading ?? null,
		at: last?.at ?? null,
		middles,
		loads: measured(last?.figures.lcp).length,
		missing: Math.max(0, ...own.map((figure) => figure.missing)),
		disturbed: stored.disturbed,
		loadId: stored.loadId,
		trouble: stored.trouble,
		since
	};
}

/** Most likely causes, from the loads that stand for the readings on both sides. Known ones are not sought again. */
function findCauses(
	db: Db,
	{
		watch: { clientId },
		changes,
		figures,
		causes
	}: { watch: Watch; changes: readonly Change[]; figures: readonly StoredFigures[]; causes: WatchHistory['causes'] }
): WatchHistory['causes'] {
	const loadOf = (page: number, condition: string, reading: number) =>
		figures.find(
			(stored) => stored.watchedPageId === page && stored.conditionId === condition && stored.readingId === reading
		)?.loadId ?? null;
	return Object.fromEntries(
		changes.map((change) => {
			const key = changeKey(change);
			if (causes[key]) return [key, causes[key]];
			const sides = [change.before, change.after].map((reading) => loadOf(change.page, change.condition, reading));
			return [key, causesBetween(db, clientId, sides, change)];
		})
	);
}

const MOST_CAUSES = 2;

/** What moved the same figure in the same direction; a cause of anything else explains nothing here. */
function causesBetween(
	db: Db,
	clientId: number,
	loads: readonly (number | null)[],
	{ metric, shift }: Pick<Change, 'metric' | 'shift'>
): string[] {
	const digests = loads.flatMap((id) => {
		const record = id === null ? null : findRecord(db, id);
		if (!record || record.status !== 'ok') return [];
		const cdnHosts = cdnHostsOf(db, clientId, new URL(record.finalUrl || record.url).host);
		return [digestLoad(record, { loadId: id!, armId: 0, conditionId: '', round: 1 }, cdnHosts)];
	});
	const [before, after] = digests;
	if (!before || !after) return [];
	const { causes } = explainShift([before], [after]);
	const own = causes.filter((cause) => cause.metric === metric && cause.shift > 0 === shift.estimate > 0);
	return own.slice(0, MOST_CAUSES).map((cause) => describeCause(cause));
}
