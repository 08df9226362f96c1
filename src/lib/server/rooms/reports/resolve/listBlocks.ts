/** What blocks show that are not of one trial: field, worksheet, recommendations, outside figures, claims. */
import { assessed, failing } from '$core/field/assessment';
import { checkClaim } from '$core/report/claims';
import type { BlockOf, ReportDraft, WorksheetLine } from '$core/report/document';
import type { BlockBody, TableView } from '$core/report/view';
import { targetsByConditions } from '$core/clients/targets';
import { metricOf, type MetricId } from '$core/metrics/catalogue';
import { scoreOf } from '$core/metrics/score';
import { median } from '$core/stats/summary';
import type { ReportWords } from '$core/wording/reportWords';
import { boardName } from '$core/wording/board';
import { plainName } from '$core/wording/plainNames';
import { localNumber } from '$core/wording/localNumber';
import { tellOutside } from '$core/wording/outside';
import { wordClaim, wordShortDay, wordValue } from '$core/wording/report';
import { findClient } from '../../clients/view';
import { pageFieldRows, passesOnBoth, type FieldRow } from '../../field/view';
import { labLoadsOfUrl, type PageLoad } from '../../loads/pageFigures';
import type { Material } from '../material';
import { nearestOwn } from '../nearest';

const nothing = ({ words }: Material, what: 'pages' | 'items' | 'disclosure' | 'trial'): BlockBody => ({
	kind: 'missing',
	why: words.say(`report.missing.${what}`),
	isEmpty: what === 'pages' || what === 'items'
});

const SHOWN = ['lcp', 'inp', 'cls'] as const;
/** Pages of a report are of one client: their paths tell them apart, the home page is named by its host. */
const pathOf = (url: string) => (new URL(url).pathname === '/' ? new URL(url).host : new URL(url).pathname);

export function fieldBlock(material: Material, { pages }: BlockOf<'field'>): BlockBody {
	const { words } = material;
	const rows = pages.flatMap((page) => pageFieldRows(material.db, page));
	if (!rows.length) return nothing(material, 'pages');
	const head = [
		...(['page', 'device', 'scope', 'window'] as const).map((key) => words.say(`report.field.${key}`)),
		...SHOWN.map((metric) => boardName(metric, words)),
		words.say('report.field.state'),
		words.say('report.field.before')
	];
	const table: TableView = {
		title: words.say('report.field.caption'),
		head,
		rows: rows.map((row) => ({ cells: fieldCells(material, row) }))
	};
	return { kind: 'tables', tables: [table], about: words.say('report.field.about') };
}

const scopeOf = ({ scope, absence }: FieldRow) =>
	scope === 'origin' && absence !== 'too-few' ? 'origin-alone' : (scope ?? absence ?? 'not-asked');

/** Whether it was good, in the client's words, with what keeps it from it. */
export function fieldState(
	words: ReportWords,
	{ assessment, metrics }: Pick<FieldRow, 'assessment' | 'metrics'>
): string {
	const named = (ids: readonly MetricId[]) => words.list(ids.map((id) => boardName(id, words)));
	return words.say(`report.field.state.${assessment}`, {
		all: assessed(metrics).length === SHOWN.length ? 'yes' : 'no',
		good: named(assessed(metrics)),
		missed: named(failing(metrics))
	});
}

function fieldCells({ words }: Material, row: FieldRow): string[] {
	return [
		pathOf(row.url),
		words.say(`report.field.${row.device}`),
		words.say(`report.field.scope.${scopeOf(row)}`),
		row.until === null ? '–' : wordShortDay(row.until, words.language),
		...SHOWN.map((metric) => wordValue(metric, row.metrics?.[metric]?.p75 ?? null, words)),
		fieldState(words, row),
		row.earlier === null ? '–' : fieldState(words, row.earlier)
	];
}

export function worksheetBlock(material: Material, { lines }: BlockOf<'worksheet'>): BlockBody {
	const { words } = material;
	if (!lines.length) return nothing(material, 'pages');
	const head = [
		words.say('report.field.page'),
		words.say('report.field.device'),
		words.say('report.sheet.field'),
		words.say('report.sheet.lab'),
		words.say('report.sheet.costs'),
		words.say('report.sheet.state'),
		words.say('report.sheet.why'),
		words.say('report.sheet.owner'),
		words.say('report.sheet.note')
	];
	return {
		kind: 'tables',
		tables: [{ title: '', head, rows: lines.map((line) => ({ cells: worksheetCells(material, line) })) }],
		about: ''
	};
}

/** Metrics that are named as costing most. */
const MOST_COSTS = 2;

/** What a lab measured longer ago is no part of how a page is now. */
const SPAN_DAYS = 28;
const DAY_MS = 86_400_000;

/** Under the conditions of the newest load, of the four weeks up to it. @param loads of one device */
function newestUnderOne(loads: readonly PageLoad[]): PageLoad[] {
	const newest = loads.reduce<PageLoad | null>(
		(last, load) => (last === null || load.startedAt > last.startedAt ? load : last),
		null
	);
	if (!newest) return [];
	const since = Date.parse(newest.startedAt) - SPAN_DAYS * DAY_MS;
	return loads.filter(
		({ conditionId, startedAt }) => conditionId === newest.conditionId && Date.parse(startedAt) >= since
	);
}

/** "3 Nov 2026" or "3 Nov 2026 to 24 Nov 2026". */
function spanOf({ words }: Material, loads: readonly PageLoad[]): string {
	const days = loads.map(({ startedAt }) => startedAt.slice(0, 10)).sort();
	const [from, until] = [days[0]!, days.at(-1)!].map((day) => wordShortDay(day, words.language));
	return from === until ? from! : words.say('report.sheet.lab.span', { from: from!, until: until! });
}

function worksheetCells(material: Material, line: WorksheetLine): string[] {
	const { words, db } = material;
	const rows = pageFieldRows(db, line.page);
	const row = rows.find(({ device }) => device === line.device);
	const loads = row ? newestUnderOne(labLoadsOfUrl(db, row.url, line.device)) : [];
	const middle = (metric: MetricId) => {
		const values = loads.flatMap(({ figures }) => figures[metric] ?? []);
		return values.length ? median(values) : null;
	};
	const costs = scoreOf(
		Object.fromEntries(['ttfb', 'fcp', 'lcp', 'tbt', 'cls'].map((id) => [id, middle(id as MetricId)]))
	)
		.parts.filter(({ cost }) => (cost ?? 0) >= 1)
		.sort((a, b) => b.cost! - a.cost!)
		.slice(0, MOST_COSTS);
	const field = row
		? `${fieldState(words, row)} (${words.say(`report.field.scope.${scopeOf(row)}`)})`
		: words.say('report.field.state.no-data');
	return [
		row ? pathOf(row.url) : '–',
		words.say(`report.field.${line.device}`),
		field,
		loads.length
			? words.say('report.sheet.lab.figures', {
					score: wordValue('score', middle('score'), words),
					lcp: wordValue('lcp', middle('lcp'), words),
					n: loads.length,
					conditions: material.nameOfConditions(loads[0]!.conditionId),
					span: spanOf(material, loads)
				})
			: words.say('report.sheet.lab.none'),
		costs
			.map(({ metric, cost }) => `${plainName(metric, words)} ${localNumber(`−${cost!.toFixed(0)}`, words.language)}`)
			.join(', ') || '–',
		words.say(`report.sheet.${line.state}`),
		reasonOf(material, { rows, row, lcp: middle('lcp') }),
		line.owner,
		line.note
	];
}

/** The rule that a state follows, where field or lab say so: visitors first, then the target of the largest paint. */
function reasonOf(
	{ db, words, clientId }: Material,
	{ rows, row, lcp }: { rows: readonly FieldRow[]; row: FieldRow | undefined; lcp: number | null }
): string {
	if (passesOnBoth(rows)) return words.say('report.sheet.why.passes');
	if (row?.assessment === 'passes') return words.say('report.sheet.why.one');
	if (row?.assessment === 'does-not') return words.say('report.sheet.why.fails', { state: fieldState(words, row) });
	const { targets } = targetsByConditions((clientId === null ? null : findClient(db, clientId))?.targets ?? []);
	const target = targets.lcp ?? metricOf('lcp').thresholds!.good;
	if (lcp === null || lcp <= target) return words.say('report.sheet.why.none');
	return words.say('report.sheet.why.lab', {
		metric: plainName('lcp', words),
		value: wordValue('lcp', lcp, words),
		target: wordValue('lcp', target, words)
	});
}

export function recommendationsBlock(material: Material, { items }: BlockOf<'recommendations'>): BlockBody {
	const { words } = material;
	if (!items.length) return nothing(material, 'items');
	return {
		kind: 'recommendations',
		items: items.map(({ what, who, gain, effort, check }) => ({
			what,
			facts: [
				...(who ? [{ name: words.say('report.rec.who'), text: who }] : []),
				{
					name: words.say('report.rec.gain'),
					text: gain === null ? words.say('report.rec.gain.none') : material.figure(gain).text
				},
				{ name: words.say('report.rec.effort'), text: words.say(`report.rec.effort.${effort}`) },
				...(check ? [{ name: words.say('report.rec.check'), text: check }] : [])
			]
		}))
	};
}

export function claimsBlock(material: Material, { items }: BlockOf<'claims'>): BlockBody {
	if (!items.length) return nothing(material, 'items');
	return {
		kind: 'outside',
		items: items.map((claim) => ({
			said: `“${claim.said}”`,
			own: '',
			lines: wordClaim(
				claim,
				claim.before === 0 ? null : checkClaim(claim),
				claim.own === null ? null : material.figure(claim.own).text,
				material.words
			),
			rest: ''
		}))
	};
}

export function outsideBlock(material: Material, { items, trial }: BlockOf<'outside'>): BlockBody {
	const { words } = material;
	if (!items.length) return nothing(material, 'items');
	return {
		kind: 'outside',
		items: items.map((figure) => {
			const nearest = trial === null ? null : nearestOwn(material, trial, figure);
			const explained = tellOutside(figure, nearest, words);
			return nearest?.of ? { ...explained, rests: { figure, of: nearest.of } } : explained;
		})
	};
}

export function disclosureBlock(material: Material, { isPaid, words: own }: ReportDraft['disclosure']): BlockBody {
	if (isPaid === null) return nothing(material, 'disclosure');
	const line = material.words.say(isPaid ? 'report.disclosure.paid' : 'report.disclosure.unpaid');
	return { kind: 'lines', groups: [{ title: '', lines: [line, own].filter(Boolean) }] };
}
