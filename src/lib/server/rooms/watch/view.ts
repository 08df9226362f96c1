/** Watched pages as lists and page by page: what the screens and the API show. */
import { bandOf, metricOf, type Band, type MetricId } from '$core/metrics/catalogue';
import { boardMark, type BoardMark } from '$core/trial/judge/board';
import type { ShiftResult } from '$core/trial/types';
import { lastCalled } from '$core/watch/history';
import { changeResult, type Period } from '$core/watch/since';
import { boardWord } from '$core/wording/board';
import { describeSchedule, describeTrouble } from '$core/wording/watch';
import type { Db } from '../../base/db/connection';
import { changedConditions } from './conditions';
import { findHistory, type PageState, type WatchHistory } from './history';
import { deliveriesOfWatch, noticesOfWatch, unreadNotices } from './queries/notices';
import { dateOf, headOf } from './pageView';
import { figuresOfWatched, readingProgress, readingsOfWatch } from './queries/readings';
import { existingWatch } from './watches';
import { listWatches, pagesOfWatch, type Watch, type WatchedPage } from './queries/watches';

export { lateLoadsOf } from './queries/blocks';
export { findNotice, markRead } from './queries/notices';
export { type FoundPage, type PageChoice, PageSearch, findPages } from './queries/pageChoice';
export {
	type StoredFigures,
	endReading,
	figuresOfWatch,
	findReading,
	readingProgress,
	readingsOfWatch,
	saveFigures
} from './queries/readings';
export { type Watch, type WatchKind, type WatchedPage, findWatch, listWatches, pagesOfWatch } from './queries/watches';

type StripMark = BoardMark & { short: string; word: string };

interface ListedCondition {
	condition: string;
	score: number | null;
	lcp: number | null;
	cls: number | null;
	tbt: number | null;
	/** Of the worst of LCP and CLS, the two that the lab shows as the field does. */
	band: Band | null;
	/** Empty where there is nothing to compare with. */
	marks: StripMark[];
	/** UTC ISO of what it is compared with; null without. */
	since: string | null;
	trouble: string;
}

interface ListedPage {
	key: string;
	watchId: number;
	watchName: string;
	clientName: string;
	page: number;
	url: string;
	name: string;
	type: string | null;
	/** UTC ISO of the newest reading; null before the first. */
	at: string | null;
	state: 'waiting' | 'being-read' | 'changed' | 'steady' | 'young' | 'trouble' | 'ended';
	conditions: ListedCondition[];
}

/** Changes are news for so long. */
const NEWS_DAYS = 28;
const DAY_MS = 86_400_000;

export function watchList(db: Db, clientId: number | null, period: Period): ListedPage[] {
	return listWatches(db, 'watch', clientId).flatMap((watch) => listedPages(db, watch, period));
}

function listedPages(db: Db, watch: Watch, period: Period): ListedPage[] {
	const history = findHistory(db, watch.id);
	const isOpen = readingProgress(db, watch.id) !== null;
	const dates = new Map(readingsOfWatch(db, watch.id).map(({ id, plannedAt }) => [id, plannedAt]));
	return pagesOfWatch(db, watch.id)
		.filter(({ role }) => role !== 'control')
		.map((page) => {
			const states = watch.settings.conditions.flatMap(
				(id) => history?.states.find((state) => state.page === page.id && state.condition === id) ?? []
			);
			const conditions = states.map((state) => listedCondition(state, period));
			const at =
				states
					.flatMap((state) => state.at ?? [])
					.sort()
					.at(-1) ?? null;
			return {
				key: `${watch.id}/${page.id}`,
				watchId: watch.id,
				watchName: watch.name,
				clientName: watch.clientName,
				page: page.id,
				url: page.url,
				name: page.name,
				type: page.type,
				at,
				state: pageState(page, { conditions, history, at, isOpen, dates }),
				conditions
			};
		});
}

function pageState(
	page: WatchedPage,
	{
		conditions,
		history,
		at,
		isOpen,
		dates
	}: {
		conditions: readonly ListedCondition[];
		history: WatchHistory | null;
		at: string | null;
		isOpen: boolean;
		dates: ReadonlyMap<number, string>;
	}
): ListedPage['state'] {
	if (page.endedAt !== null) return 'ended';
	if (conditions.some(({ trouble }) => trouble !== '')) return 'trouble';
	if (at === null) return isOpen ? 'being-read' : 'waiting';
	const since = Date.parse(at) - NEWS_DAYS * DAY_MS;
	const isNew = history?.changes.some(
		(change) =>
			change.page === page.id &&
			change.verdict !== 'same' &&
			change.verdict !== 'undecided' &&
			Date.parse(dates.get(lastCalled(change)) ?? '') >= since
	);
	if (isNew) return 'changed';
	const own = (history?.states ?? []).filter((state) => state.page === page.id);
	return own.some(({ missing }) => missing > 0) ? 'young' : 'steady';
}

const ORDER: readonly Band[] = ['good', 'needs improvement', 'poor'];

function listedCondition({ condition, middles, since, trouble }: PageState, period: Period): ListedCondition {
	// What a page in trouble showed last is no figure of how it is.
	const figure = (metric: MetricId) => (trouble ? null : (middles[metric] ?? null));
	const bands = (['lcp', 'cls'] as const).flatMap((metric) => {
		const value = figure(metric);
		return value === null ? [] : (bandOf(metric, value) ?? []);
	});
	const compared = since[period];
	return {
		condition,
		score: figure('score'),
		lcp: figure('lcp'),
		cls: figure('cls'),
		tbt: figure('tbt'),
		band: bands.length ? ORDER[Math.max(...bands.map((band) => ORDER.indexOf(band)))]! : null,
		marks: trouble ? [] : (compared?.results ?? []).map(stripMark),
		since: compared?.at ?? null,
		trouble: trouble ? describeTrouble(trouble) : ''
	};
}

function stripMark(result: ShiftResult): StripMark {
	const mark = boardMark(result);
	return { ...mark, short: metricOf(result.metric).short, word: boardWord(mark) };
}

/** One watch with its settings, how far its block is, and what was told of it. */
export function watchView(db: Db, id: number) {
	const watch = existingWatch(db, id, 'watch');
	const pages = pagesOfWatch(db, id);
	const readings = readingsOfWatch(db, id);
	const done = readings.filter(({ state }) => state === 'done');
	return {
		...headOf(watch),
		settings: watch.settings,
		scheduleWords: describeSchedule(watch.settings.schedule),
		control: pages.find(({ role, endedAt }) => role === 'control' && endedAt === null) ?? null,
		pages: pages.filter(({ role }) => role !== 'control'),
		changedConditions: changedConditions(db, watch),
		readings: done.length,
		firstAt: done[0]?.plannedAt ?? null,
		lastAt: done.at(-1)?.plannedAt ?? null,
		isRecorded: done.some(({ why }) => why === 'recorded'),
		progress: readingProgress(db, id),
		notices: noticesOfWatch(db, id),
		deliveries: deliveriesOfWatch(db, id)
	};
}

/** One row for each load that counts: reading, page, conditions, metric by metric. */
export function watchRows(
	db: Db,
	id: number,
	watchedPageId: number | null
): { head: string[]; rows: (string | number)[][] } {
	const watch = existingWatch(db, id, 'watch');
	const readings = readingsOfWatch(db, id);
	const { metrics } = watch.settings;
	const pages = pagesOfWatch(db, id).filter((page) => watchedPageId === null || page.id === watchedPageId);
	const rows = pages.flatMap((page) =>
		figuresOfWatched(db, page.id).flatMap(({ readingId, conditionId, figures, rounds, setting }) =>
			rounds.map((round, i) => [
				dateOf(readings, readingId),
				page.url || page.name,
				conditionId,
				round,
				setting?.browser ?? '',
				...metrics.map((metric) => figures[metric]?.[i] ?? '')
			])
		)
	);
	return { head: ['reading', 'page', 'conditions', 'round', 'browser', ...metrics], rows };
}

interface DeskNotice {
	id: number;
	title: string;
	when: string;
	at: string;
	path: string;
	watchName: string;
	clientName: string;
	kind: 'change' | 'break' | 'trouble';
	marks: StripMark[];
}

/** What watches told and nobody has read. */
export function deskNotices(db: Db, clientId: number | null): DeskNotice[] {
	return unreadNotices(db, clientId).map(({ id, at, body, watchName, clientName }) => ({
		id,
		title: body.title,
		when: body.when,
		at,
		path: body.path,
		watchName,
		clientName,
		kind: body.kind,
		marks: body.changes.map((change) => stripMark(changeResult(change)))
	}));
}

/** Pages that are down, lead elsewhere or ask to sign in: on the Desk until that is mended, whatever was read. */
export function brokenPages(db: Db, clientId: number | null) {
	return watchList(db, clientId, 'month')
		.filter(({ state }) => state === 'trouble')
		.map(({ key, watchId, page, name, watchName, clientName, conditions, at }) => ({
			key,
			path: `/watch/${watchId}/${page}`,
			name,
			watchName,
			clientName,
			trouble: [...new Set(conditions.flatMap(({ trouble }) => trouble || []))].join(' '),
			/** UTC ISO of the newest reading that had figures; null without one. */
			goodAt: at
		}));
}

/** Blocks that are under way, as the Desk shows them. */
export function openReadings(db: Db, clientId: number | null) {
	return (['watch', 'standing'] as const).flatMap((kind) =>
		listWatches(db, kind, clientId).flatMap(({ id, name }) => {
			const progress = readingProgress(db, id);
			return progress ? [{ id, kind, name, ...progress }] : [];
		})
	);
}
