/** What a report shows of pages over time and against competitors. */
import { metricOf, type MetricId } from '$core/metrics/catalogue';
import type { BlockBody, BoardView, TableView } from '$core/report/view';
import { boardMark } from '$core/trial/judge/board';
import { changeResult } from '$core/watch/since';
import { eventsOf, type Change } from '$core/watch/history';
import { LEAST_READINGS } from '$core/watch/look';
import { boardName, boardWord } from '$core/wording/board';
import { wordDay, wordShiftIn, wordUnit } from '$core/wording/report';
import { findRanks, type RunRanks } from '../../standings/ranks';
import { findHistory, type WatchHistory } from '../../watch/history';
import type { Material } from '../material';
import { readingsOfWatch, findWatch, listWatches, pagesOfWatch, type Watch } from '../../watch/view';

/** Another client's watch is no part of this one's report. */
function ownWatch({ db, clientId }: Material, id: number, kind: Watch['kind']): Watch | null {
	const watch = findWatch(db, id);
	return watch?.kind === kind && watch.clientId === clientId ? watch : null;
}

/** Of some page no step could have been called. */
const isYoung = ({ states }: Pick<WatchHistory, 'states'>) => states.some(({ missing }) => missing > 0);

export function watchBlock(material: Material, id: number): BlockBody {
	const { db, words } = material;
	const watch = ownWatch(material, id, 'watch');
	const history = watch && findHistory(db, id);
	const readings = readingsOfWatch(db, id).filter(({ state }) => state === 'done');
	const [first, last] = [readings[0], readings.at(-1)];
	if (!watch || !history || !first || !last) return { kind: 'missing', why: words.say('report.missing.watch') };
	const dayOf = (reading: number) =>
		wordDay((readings.find((candidate) => candidate.id === reading)?.plannedAt ?? '').slice(0, 10), words.language);
	if (!history.changes.length) {
		const [from, until] = [first, last].map(({ plannedAt }) => wordDay(plannedAt.slice(0, 10), words.language));
		const said = { n: readings.length, from: from!, until: until! };
		const steady = isYoung(history)
			? words.say('report.watch.young', { ...said, least: LEAST_READINGS })
			: words.say('report.watch.steady', said);
		const breaks = [...new Set(history.breaks.map(({ reading }) => reading))].map((reading) =>
			words.say('report.watch.break', { day: dayOf(reading) })
		);
		return { kind: 'lines', groups: [{ title: watch.name, lines: [steady, ...breaks] }] };
	}
	const pages = new Map(pagesOfWatch(db, id).map((page) => [page.id, page.name]));
	const newestFirst = eventsOf(history.changes).sort(([a], [b]) => b!.after - a!.after);
	const boards = newestFirst.map((changes): BoardView => {
		const { page, condition, before, after } = changes[0]!;
		return {
			title: words.say('report.watch.event', {
				page: pages.get(page) ?? '',
				conditions: material.nameOfConditions(condition),
				from: dayOf(before),
				until: dayOf(after)
			}),
			baseline: words.say('report.watch.before'),
			variant: words.say('report.watch.after'),
			rows: changes.map((change) => rowOf(material, change))
		};
	});
	return { kind: 'board', boards };
}

/**
 * What moved beyond the noise on watched pages, newest first. @param isThen whether a day is in the time that is told
 * @returns null where no page was read then
 */
export function watchedLines(material: Material, clientId: number, isThen: (day: string) => boolean): string[] | null {
	const { db, words } = material;
	const read = listWatches(db, 'watch', clientId).map(({ id }) => {
		const readings = readingsOfWatch(db, id).filter(({ state }) => state === 'done');
		return { id, days: new Map(readings.map((reading) => [reading.id, reading.plannedAt.slice(0, 10)])) };
	});
	const then = read.filter(({ days }) => [...days.values()].some(isThen));
	if (!then.length) return null;
	const lines = then.flatMap(({ id, days }) => {
		const pages = new Map(pagesOfWatch(db, id).map((page) => [page.id, page.name]));
		return eventsOf(findHistory(db, id)?.changes ?? [])
			.filter(([first]) => isThen(days.get(first!.after) ?? ''))
			.sort(([a], [b]) => b!.after - a!.after)
			.map((changes) => {
				const { page, condition, before, after } = changes[0]!;
				const event = words.say('report.watch.event', {
					page: pages.get(page) ?? '',
					conditions: material.nameOfConditions(condition),
					from: wordDay(days.get(before) ?? '', words.language),
					until: wordDay(days.get(after) ?? '', words.language)
				});
				const what = changes.map((change) => {
					const { name, word, shift } = rowOf(material, change);
					return words.say('report.period.watches.metric', { metric: name, word: word.text, shift });
				});
				return words.say('report.period.watches.moved', { event, what: what.join('; ') });
			});
	});
	const histories = then.flatMap(({ id }) => findHistory(db, id) ?? []);
	const isUntold = !lines.length && histories.some(isYoung);
	return isUntold ? [words.say('report.period.watches.young', { least: LEAST_READINGS })] : lines;
}

/** Figures of a history lead back to its readings, not to a trial: they carry no reference. */
function rowOf({ words }: Material, change: Change): BoardView['rows'][number] {
	const result = changeResult(change);
	const mark = boardMark(result);
	const { unit } = metricOf(change.metric);
	const plainText = (text: string) => ({ ref: '', text });
	return {
		...mark,
		name: boardName(change.metric, words),
		baseline: plainText(wordUnit(unit, change.from, words)),
		variant: plainText(wordUnit(unit, change.to, words)),
		word: plainText(boardWord(mark, words)),
		shift: wordShiftIn(result, words)
	};
}

export function standingBlock(material: Material, id: number): BlockBody {
	const { db, words } = material;
	const standing = ownWatch(material, id, 'standing');
	const ranks = standing && findRanks(db, id);
	const runs = standing?.settings.conditions.flatMap(
		(condition) => ranks?.runs.findLast((run) => run.condition === condition) ?? []
	);
	if (!standing || !runs?.length) return { kind: 'missing', why: words.say('report.missing.standing') };
	const about = words.say('report.standing.about', {
		day: wordDay(runs[0]!.at.slice(0, 10), words.language),
		rounds: standing.settings.loads
	});
	return { kind: 'tables', tables: runs.map((run) => tableOf(material, standing, run)), about };
}

function tableOf(material: Material, { id, settings }: Watch, { condition, ranks }: RunRanks): TableView {
	const { db, words } = material;
	const pages = pagesOfWatch(db, id).filter(({ endedAt }) => endedAt === null);
	const metrics = settings.metrics.filter((metric) => ranks[metric]);
	return {
		title: material.nameOfConditions(condition),
		head: [words.say('report.metric'), ...pages.map(({ name }) => name)],
		rows: metrics.map((metric) => ({
			cells: [boardName(metric, words), ...pages.map((page) => cellOf(material, metric, ranks[metric]!, page.id))]
		}))
	};
}

function cellOf(
	{ words }: Material,
	metric: MetricId,
	ranked: NonNullable<RunRanks['ranks'][MetricId]>,
	page: number
): string {
	const own = ranked.find((candidate) => candidate.page === page);
	if (!own || own.middle === null || own.from === null || own.to === null) return '–';
	const all = ranked.filter(({ from }) => from !== null).length;
	const place = words.say('report.standing.rank', {
		from: own.from,
		to: own.to,
		same: own.from === own.to ? 'yes' : 'no',
		all
	});
	return `${wordUnit(metricOf(metric).unit, own.middle, words)} · ${place}`;
}
