/** The history of one watched page: points, steps, what they rest on; for its screen and the API. */
import type { CustomTiming } from '$core/field/visitSettings';
import { metricOf, type MetricId } from '$core/metrics/catalogue';
import { blockOf } from '$core/watch/block';
import { eventsOf, grownUntil } from '$core/watch/history';
import { LEAST_READINGS } from '$core/watch/look';
import { measured, timingIn, timingKey, type TimingKey } from '$core/watch/reading';
import { changeResult } from '$core/watch/since';
import { boardRow, type BoardRow } from '$core/wording/board';
import {
	describeControl,
	describeParts,
	describeQuiet,
	describeTrouble,
	titleOfBreak,
	titleOfChanges,
	reasonsOfChanges,
	STEP_SIDES,
	WATCH_WORDS,
	whenOfChange
} from '$core/wording/watch';
import { conditionNames } from '../conditions/saved';
import type { Db } from '../../base/db/connection';
import { concerns } from '../field/markers';
import { NotPossible } from '../../base/refusal';
import { customTimingsAt } from '../visits/customTimings';
import { bucketOfPage } from '../visits/buckets';
import { causesOf, findHistory, type WatchHistory } from './history';
import { figuresOfWatched, readingsOfWatch, type Reading, type StoredFigures } from './queries/readings';
import { existingWatch } from './watches';
import { pagesOfWatch, type Watch, type WatchedPage } from './queries/watches';
import { markersOfSite } from '../field/view';
import { findPage } from '../pages/view';
import { stageMarkersAt } from '../trials/view';

interface TimelinePoint {
	reading: number;
	at: string;
	middle: number;
	low: number;
	high: number;
	loads: number;
	disturbed: number;
	isWild: boolean;
	loadId: number | null;
}

interface TimelineStep {
	at: string;
	from: number;
	to: number;
	low: number;
	high: number;
	verdict: string;
	words: string;
}

interface Timeline {
	metric: MetricId | TimingKey;
	name: string;
	/** Null where none are known. */
	thresholds: { good: number; poor: number } | null;
	/** Figures are durations in ms, as the page's own timings are. */
	isTiming: boolean;
	points: TimelinePoint[];
	steps: TimelineStep[];
}

/** An event on the history, as it is told beside the chart. */
interface ToldChange {
	title: string;
	when: string;
	at: string;
	rows: BoardRow[];
	lines: string[];
	/** Markers that fall into the time of the step. */
	markers: { day: string; words: string }[];
}

/** Something that was changed on the page: noted on its site, or between the stages of a trial. */
interface PageMarker {
	id: number;
	day: string;
	words: string;
	fileName: string | null;
	trial: { id: number; question: string } | null;
}

interface ConditionHistory {
	condition: string;
	name: string;
	timelines: Timeline[];
	changes: ToldChange[];
	/** Loads whose frames stand for the first and the newest reading; null where none is kept. */
	then: { load: number; at: string } | null;
	now: { load: number; at: string } | null;
	trouble: string;
	/** What is said where no step was called. */
	quiet: string;
}

/** Everything of one watched page. @throws NotPossible where it is not there */
export function watchedPageView(db: Db, watchId: number, watchedPageId: number) {
	const watch = existingWatch(db, watchId, 'watch');
	const page = pagesOfWatch(db, watchId).find(({ id, role }) => id === watchedPageId && role !== 'control');
	if (!page) throw new NotPossible(404, `This watch has no page ${watchedPageId}.`);
	const readings = readingsOfWatch(db, watchId);
	const history = findHistory(db, watchId);
	const listed = page.pageId === null ? null : findPage(db, page.pageId);
	const markers = [
		...(listed
			? markersOfSite(db, listed.siteId).filter((marker) => concerns(marker, bucketOfPage(listed.url)))
			: []
		).map(({ id, day, words, fileName }): PageMarker => ({ id, day, words, fileName, trial: null })),
		...stageMarkersAt(db, page.url).map(({ id, at, words, fileName, trialId, question }): PageMarker => ({
			id,
			day: at.slice(0, 10),
			words,
			fileName,
			trial: { id: trialId, question }
		}))
	].sort((a, b) => b.day.localeCompare(a.day));
	const figures = figuresOfWatched(db, page.id);
	const names = new Map(conditionNames(db).map(({ id, name }) => [id, name]));
	const timings = customTimingsAt(db, watch.clientId, page.url);
	return {
		watch: headOf(watch),
		page: { ...page, siteId: listed?.siteId ?? null },
		markers,
		gaps: readings.flatMap(({ plannedAt, missed }) =>
			missed ? [{ at: plannedAt, words: WATCH_WORDS.say('missed', { n: missed }) }] : []
		),
		breaks: breaksOf(history, page.id, readings, watch.settings.metrics),
		conditions: watch.settings.conditions.flatMap((condition): ConditionHistory[] => {
			const own = figures.filter((stored) => stored.conditionId === condition);
			if (!own.length) return [];
			return [
				conditionHistory(watch, {
					page,
					condition,
					name: names.get(condition) ?? condition,
					own,
					history,
					readings,
					markers,
					timings
				})
			];
		})
	};
}

function breaksOf(
	history: WatchHistory | null,
	page: number,
	readings: readonly Reading[],
	metrics: readonly MetricId[]
) {
	const own = new Map(
		(history?.breaks ?? []).filter((candidate) => candidate.page === page).map((found) => [found.reading, found])
	);
	return [...own.values()].map((found) => ({
		at: dateOf(readings, found.reading),
		title: titleOfBreak(found),
		lines: [describeParts(found), describeControl(found.control, metrics)].filter(Boolean)
	}));
}

interface Material {
	page: WatchedPage;
	condition: string;
	name: string;
	own: readonly StoredFigures[];
	history: WatchHistory | null;
	readings: readonly Reading[];
	markers: readonly PageMarker[];
	/** Those that the analyst defined for the site. */
	timings: ReadonlyMap<string, CustomTiming>;
}

function conditionHistory(watch: Watch, material: Material): ConditionHistory {
	const { condition, name, own, readings, history, page } = material;
	const state = history?.states.find((item) => item.page === page.id && item.condition === condition);
	const kept = own.filter(({ loadId, setting }) => loadId !== null && setting !== null);
	const shown = (stored: StoredFigures | undefined) =>
		stored ? { load: stored.loadId!, at: dateOf(readings, stored.readingId) } : null;
	const trouble = own.at(-1)?.trouble ?? null;
	return {
		condition,
		name,
		timelines: [
			...watch.settings.metrics.map((metric) => timelineOf(metric, material)),
			...timingNames(own).map((name) => ownTimeline(name, material))
		],
		changes: toldChanges(material),
		then: kept.length > 1 ? shown(kept[0]) : null,
		now: shown(kept.at(-1)),
		trouble: trouble ? describeTrouble(trouble) : '',
		quiet: describeQuiet(state?.missing ?? LEAST_READINGS)
	};
}

/** Of the marks and measures that any reading holds. */
const timingNames = (own: readonly StoredFigures[]): string[] =>
	[...new Set(own.flatMap(({ figures }) => Object.keys(figures)))].flatMap((key) => timingIn(key) ?? []).sort();

/** Shown with its spread; nothing is called on it. */
function ownTimeline(name: string, { own, readings, timings }: Material): Timeline {
	const metric = timingKey(name);
	const { good, poor } = timings.get(name) ?? {};
	return {
		metric,
		name,
		thresholds: good === undefined || poor === undefined ? null : { good, poor },
		isTiming: true,
		points: pointsOf(own, readings, (figures) => figures[metric]),
		steps: []
	};
}

function timelineOf(metric: MetricId, { page, condition, own, history, readings }: Material): Timeline {
	const isOwn = (found: { page: number; condition: string; metric: MetricId }) =>
		found.page === page.id && found.condition === condition && found.metric === metric;
	const wild = new Set((history?.wild ?? []).filter(isOwn).map(({ reading }) => reading));
	const points = pointsOf(own, readings, (figures) => figures[metric], wild);
	const steps = (history?.changes ?? []).filter(isOwn).map((change): TimelineStep => ({
		at: dateOf(readings, change.after),
		from: change.from,
		to: change.to,
		low: change.shift.low ?? change.shift.estimate,
		high: change.shift.high ?? change.shift.estimate,
		verdict: change.verdict,
		words: boardRow(changeResult(change), STEP_SIDES).text
	}));
	const { name, thresholds } = metricOf(metric);
	return { metric, name, thresholds, isTiming: false, points, steps };
}

function pointsOf(
	own: readonly StoredFigures[],
	readings: readonly Reading[],
	figuresIn: (figures: StoredFigures['figures']) => (number | null)[] | undefined,
	wild: ReadonlySet<number> = new Set()
): TimelinePoint[] {
	return own.flatMap((stored): TimelinePoint[] => {
		const values = measured(figuresIn(stored.figures));
		const block = blockOf(values);
		if (!block) return [];
		return [
			{
				reading: stored.readingId,
				at: dateOf(readings, stored.readingId),
				middle: block.middle,
				low: Math.min(...values),
				high: Math.max(...values),
				loads: block.loads,
				disturbed: stored.disturbed,
				isWild: wild.has(stored.readingId),
				loadId: stored.loadId
			}
		];
	});
}

function toldChanges({ page, condition, history, readings, markers }: Material): ToldChange[] {
	if (!history) return [];
	const own = history.changes.filter((change) => change.page === page.id && change.condition === condition);
	return eventsOf(own)
		.sort(([a], [b]) => b!.after - a!.after)
		.map((changes) => {
			const [from, until] = [changes[0]!.before, changes[0]!.after].map((id) => dateOf(readings, id)) as [
				string,
				string
			];
			const grown = grownUntil(changes);
			return {
				title: titleOfChanges(changes, page.name, condition),
				when: whenOfChange(from, until, grown === null ? null : dateOf(readings, grown)),
				at: until,
				rows: changes.map((change) => boardRow(changeResult(change), STEP_SIDES)),
				lines: reasonsOfChanges(changes, causesOf(history, changes)),
				markers: markers
					.filter(({ day }) => day >= from.slice(0, 10) && day <= until.slice(0, 10))
					.map(({ day, words }) => ({ day, words }))
			};
		});
}

export const headOf = ({ id, name, clientId, clientName, settings, state, nextAt }: Watch) => ({
	id,
	name,
	clientId,
	clientName,
	state,
	nextAt,
	metrics: settings.metrics
});

export const dateOf = (readings: readonly Reading[], id: number) =>
	readings.find((reading) => reading.id === id)?.plannedAt ?? '';
