/** Standings as a list and one by one: what the screens and the API show. */
import { isMetricId, metricOf, METRIC_IDS, type MetricId } from '$core/metrics/catalogue';
import type { Film } from '$core/compare/film';
import { NEUTRAL, PRACTICES } from '$core/standings/practices';
import type { Ranked } from '$core/standings/ranks';
import type { Lane } from '$core/trial/judge/candidates';
import { formatDuration, formatValue } from '$core/wording/format';
import { wordSpan } from '$core/wording/range';
import { describeCell, describePractice, describeRank, describeSchedule, describeTrouble } from '$core/wording/watch';
import { timingIn } from '$core/watch/reading';
import { conditionNames } from '../conditions/saved';
import type { Db } from '../../base/db/connection';
import { filmOfLoad } from '../loads/films';
import { existingWatch } from '../watch/watches';
import { changedConditions } from '../watch/conditions';
import { findRanks, type PageContent, type RankedMetric, type RunRanks, type StandingRanks } from './ranks';
import { markersOfSite } from '../field/view';
import { findPage } from '../pages/view';
import { readingProgress, readingsOfWatch, listWatches, pagesOfWatch, type WatchedPage } from '../watch/view';

interface ListedStanding {
	id: number;
	name: string;
	clientName: string;
	type: string | null;
	pages: number;
	state: 'active' | 'paused';
	nextAt: string | null;
	/** UTC ISO of the newest run; null before the first. */
	at: string | null;
	/** Of the own page by the first metric of the standing. */
	ranks: { condition: string; words: string; metric: string }[];
}

export function standingList(db: Db, clientId: number | null): ListedStanding[] {
	return listWatches(db, 'standing', clientId).map((standing) => {
		const pages = pagesOfWatch(db, standing.id).filter(({ endedAt }) => endedAt === null);
		const own = pages.find(({ role }) => role === 'page');
		const runs = newestRuns(findRanks(db, standing.id), standing.settings.conditions);
		const metric = mainMetric(standing.settings.metrics);
		return {
			id: standing.id,
			name: standing.name,
			clientName: standing.clientName,
			type: own?.type ?? null,
			pages: pages.length,
			state: standing.state,
			nextAt: standing.nextAt,
			at: runs[0]?.at ?? null,
			ranks: runs.map((run) => ({
				condition: run.condition,
				metric: metricName(metric),
				words: own ? rankWords(run, metric, own.id) : ''
			}))
		};
	});
}

/** What a standing is first read by: what a visitor waits for, where it is among its metrics. */
const mainMetric = (metrics: readonly MetricId[]): MetricId => (metrics.includes('lcp') ? 'lcp' : metrics[0]!);

function newestRuns(ranks: StandingRanks | null, conditions: readonly string[]): RunRanks[] {
	return conditions.flatMap((condition) => ranks?.runs.findLast((run) => run.condition === condition) ?? []);
}

function rankWords(run: RunRanks, metric: RankedMetric, page: number): string {
	const ranked = run.ranks[metric] ?? [];
	const own = ranked.find((candidate) => candidate.page === page);
	return own ? placeWords(own, ranked.filter(({ from }) => from !== null).length) : '';
}

/** Of a metric that the standing was not asked about there is a figure and no place. */
const placeWords = (ranked: Pick<Ranked, 'middle' | 'from' | 'to'>, all: number): string =>
	ranked.middle !== null && ranked.from === null ? '' : describeRank(ranked, all);

function metricName(metric: RankedMetric): string {
	return isMetricId(metric) ? metricOf(metric).name : timingIn(metric)!;
}

function formatRanked(metric: RankedMetric, value: number | null): string {
	if (isMetricId(metric)) return formatValue(metric, value);
	return value === null ? '–' : formatDuration(value);
}

interface RankCell {
	page: number;
	figure: string;
	words: string;
	from: number | null;
	to: number | null;
}

interface StandingCondition {
	condition: string;
	name: string;
	at: string;
	rows: { metric: string; name: string; cells: RankCell[]; lanes: Lane[] }[];
	/** By metric: middle figures of each page, run by run. */
	lines: Record<string, { page: number; points: { at: string; value: number }[] }[]>;
	films: Film[];
	practices: {
		name: string;
		/** Told without a word of better or worse. */
		isNeutral: boolean;
		cells: { page: number; state: string; words: string; evidence: string[]; load: number }[];
	}[];
	content: Pick<PageContent, 'page' | 'owners' | 'kinds' | 'load'>[];
	troubles: { page: number; words: string }[];
}

/** Figures that say nothing of speed by themselves. */
const NOT_RANKED: readonly string[] = [
	'elements',
	'depth',
	'unusedJs',
	'unusedCss',
	'decoded',
	'inp',
	'stepShown',
	'stepQuiet',
	'dcl',
	'vc'
];

export function standingView(db: Db, id: number) {
	const standing = existingWatch(db, id, 'standing');
	const pages = pagesOfWatch(db, id);
	const ranks = findRanks(db, id);
	const names = new Map(conditionNames(db).map((own) => [own.id, own.name]));
	const runs = newestRuns(ranks, standing.settings.conditions);
	const readings = readingsOfWatch(db, id);
	return {
		id,
		name: standing.name,
		clientName: standing.clientName,
		state: standing.state,
		nextAt: standing.nextAt,
		settings: standing.settings,
		scheduleWords: describeSchedule(standing.settings.schedule),
		mainMetric: mainMetric(standing.settings.metrics),
		runs: readings.filter(({ state }) => state === 'done').length,
		isRecorded: readings.some(({ why }) => why === 'recorded'),
		progress: readingProgress(db, id),
		changedConditions: changedConditions(db, standing),
		pages: pages.map(({ id: page, name, url, role, endedAt }) => ({ id: page, name, url, role, endedAt })),
		markers: markersOf(db, pages),
		conditions: runs.map((run): StandingCondition => ({
			condition: run.condition,
			name: names.get(run.condition) ?? run.condition,
			at: run.at,
			...tablesOf(run, ranks!, pages),
			...contentOf(db, run, ranks!),
			troubles: run.troubles.map(({ page, trouble }) => ({ page, words: describeTrouble(trouble) }))
		}))
	};
}

/** Of every site in the standing: also a competitor may have had a release. */
function markersOf(db: Db, pages: readonly WatchedPage[]) {
	const sites = new Set(pages.flatMap(({ pageId }) => (pageId === null ? [] : (findPage(db, pageId)?.siteId ?? []))));
	return [...sites].flatMap((site) => markersOfSite(db, site)).map(({ day, words }) => ({ day, words }));
}

function tablesOf(
	run: RunRanks,
	{ runs }: StandingRanks,
	pages: readonly WatchedPage[]
): Pick<StandingCondition, 'rows' | 'lines'> {
	const shown = (Object.keys(run.ranks) as RankedMetric[]).filter((metric) => !NOT_RANKED.includes(metric));
	const order = [...METRIC_IDS] as string[];
	const place = (metric: string) => (isMetricId(metric) ? order.indexOf(metric) : order.length);
	const metrics = shown.sort((a, b) => place(a) - place(b));
	const own = runs.filter(({ condition }) => condition === run.condition);
	return {
		rows: metrics.map((metric) => {
			const ranked = run.ranks[metric]!;
			const all = ranked.filter(({ from }) => from !== null).length;
			return {
				metric,
				name: metricName(metric),
				cells: ranked.map(({ page, middle, from, to }) => ({
					page,
					figure: formatRanked(metric, middle),
					words: placeWords({ middle, from, to }, all),
					from,
					to
				})),
				lanes: byMiddle(metric, ranked).map((own, i) => laneOf(metric, own, { all, isBest: i === 0, pages }))
			};
		}),
		lines: Object.fromEntries(
			metrics.map((metric) => [
				metric,
				run.ranks[metric]!.map(({ page }) => ({
					page,
					points: own.flatMap(({ at, ranks }) => {
						const value = ranks[metric]?.find((candidate) => candidate.page === page)?.middle ?? null;
						return value === null ? [] : [{ at, value }];
					})
				}))
			])
		)
	};
}

/** From the best middle figure on; what was not measured comes last. */
function byMiddle(metric: RankedMetric, ranked: readonly Ranked[]): Ranked[] {
	const turn = isMetricId(metric) && metricOf(metric).higherIsBetter ? -1 : 1;
	const size = ({ middle }: Ranked) => (middle === null ? Infinity : turn * middle);
	return [...ranked].sort((a, b) => (size(a) === size(b) ? 0 : size(a) - size(b)));
}

function laneOf(
	metric: RankedMetric,
	{ page, middle, ends, from, to, fromBest }: Ranked,
	{ all, isBest, pages }: { all: number; isBest: boolean; pages: readonly WatchedPage[] }
): Lane {
	const known = pages.find(({ id }) => id === page);
	return {
		id: page,
		name: known?.name ?? '',
		figure: formatRanked(metric, middle),
		range: wordSpan(isMetricId(metric) ? metric : null, ends),
		fromBest,
		isBest: isBest && middle !== null,
		// The own page stands out; whether it is told apart its place says.
		isSolid: known?.role === 'page',
		place: placeWords({ middle, from, to }, all),
		text: ''
	};
}

function contentOf(
	db: Db,
	{ condition }: RunRanks,
	{ content }: StandingRanks
): Pick<StandingCondition, 'films' | 'practices' | 'content'> {
	const own = content.filter((candidate) => candidate.condition === condition);
	return {
		films: own.flatMap(({ page, load }) => filmOfLoad(db, page, load) ?? []),
		practices: PRACTICES.map((practice) => ({
			name: describePractice(practice),
			isNeutral: NEUTRAL.includes(practice),
			cells: own.map(({ page, load, practices }) => {
				const cell = practices.find((candidate) => candidate.practice === practice)!;
				const words = describeCell(cell);
				return { page, load: cell.load ?? load, state: cell.state, words, evidence: cell.evidence };
			})
		})),
		content: own.map(({ page, owners, kinds, load }) => ({ page, owners, kinds, load }))
	};
}
