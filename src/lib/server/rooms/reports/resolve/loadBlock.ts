/** One load as a report shows it: figures, film, weight, and what it shows to be mended. */
import { findingsOf } from '$core/findings/findings';
import { metricOf, type MetricId } from '$core/metrics/catalogue';
import type { LoadRecord, RequestRecord } from '$core/load/record/record';
import { sharesOf } from '$core/load/requests/owners';
import { columnsOfFilms, frameKey } from '$core/report/filmStrip';
import type { BlockOf } from '$core/report/document';
import type { BlockBody, TableView } from '$core/report/view';
import { boardName } from '$core/wording/board';
import { formatDuration } from '$core/wording/format';
import { localNumber } from '$core/wording/localNumber';
import { wordShortDay, wordUnit, wordValue } from '$core/wording/report';
import { conditionsIn } from '$core/wording/reportWords';
import { cdnHostsOf } from '../../clients/view';
import { filmOfLoad } from '../../loads/films';
import { findRecord } from '../../loads/loads';
import { clientOfLoad, findLoad } from '../../loads/view';
import type { Material } from '../material';
import { findingItems } from './auditBlocks';

/** A part of the block: it stands under a heading of its own but for the first, which has the block's. */
export interface BlockPart {
	name: 'figures' | 'film' | 'weight' | 'findings';
	body: BlockBody;
}

const SHOWN: readonly MetricId[] = ['score', 'ttfb', 'fcp', 'lcp', 'cls', 'tbt', 'full', 'wire', 'requests'];
const MOST_FILES = 15;

export function loadParts(material: Material, { load }: BlockOf<'load'>): BlockPart[] {
	const { db, words, clientId } = material;
	const summary = findLoad(db, load);
	const record = summary && findRecord(db, load);
	const owner = clientOfLoad(db, load);
	if (!record || (owner !== null && owner !== clientId))
		return [{ name: 'figures', body: { kind: 'missing', why: words.say('report.missing.load') } }];
	const cdnHosts = cdnHostsOf(db, owner, new URL(record.finalUrl).host);
	const { findings } = record.status === 'ok' ? findingsOf(record, cdnHosts) : { findings: [] };
	const film = filmBody(material, load, record);
	return [
		{ name: 'figures', body: figuresBody(material, record) },
		...(film ? [{ name: 'film' as const, body: film }] : []),
		{ name: 'weight', body: weightBody(material, record, cdnHosts) },
		...(findings.length
			? [
					{
						name: 'findings' as const,
						body: { kind: 'recommendations' as const, items: findingItems(material, findings) }
					}
				]
			: [])
	];
}

function figuresBody({ words }: Material, record: LoadRecord): BlockBody {
	const shown = SHOWN.filter((metric) => record.figures[metric] !== null);
	const table: TableView = {
		title: record.finalUrl,
		head: [words.say('report.metric'), words.say('report.load.figure'), words.say('report.load.target')],
		rows: shown.map((metric) => {
			const { thresholds } = metricOf(metric);
			const target = thresholds ? wordValue(metric, thresholds.good, words) : '–';
			return { cells: [boardName(metric, words), wordValue(metric, record.figures[metric], words), target] };
		})
	};
	const about = words.say('report.load.about', {
		conditions: conditionsIn(words, record.conditions?.name ?? '–'),
		day: wordShortDay(record.startedAt.slice(0, 10), words.language)
	});
	const named = record.lcp && (record.lcp.url ?? record.lcp.text ?? record.lcp.selector);
	const element = named ? ` ${words.say('report.load.element', { element: named })}.` : '';
	return { kind: 'tables', tables: [table], about: `${about}${element}` };
}

function filmBody({ db, words }: Material, load: number, record: LoadRecord): BlockBody | null {
	const film = filmOfLoad(db, 0, load);
	if (!film) return null;
	const times = columnsOfFilms([film]);
	const told = (time: number) => localNumber(formatDuration(time), words.language);
	const name = record.page?.title || record.finalUrl;
	const pictures = times.map((time) => ({
		key: frameKey(film, time),
		alt: `${name}, ${told(time)}`,
		width: film.width,
		height: film.height
	}));
	return { kind: 'frames', strips: [{ title: '', times: times.map(told), arms: [{ name, pictures }] }] };
}

function weightBody({ words }: Material, record: LoadRecord, cdnHosts: readonly string[]): BlockBody {
	const shares = sharesOf(record.requests, new URL(record.finalUrl).host, cdnHosts);
	const most = Math.max(1, ...shares.map(({ wireBytes }) => wireBytes));
	const bytes = (value: number) => wordUnit('bytes', value, words);
	const owners: TableView = {
		title: '',
		head: [words.say('report.weight.owner'), words.say('report.load.sent'), words.say('report.load.requests')],
		rows: [...shares]
			.sort((a, b) => b.wireBytes - a.wireBytes)
			.map(({ kind, name, wireBytes, requests }) => ({
				cells: [kind === 'third-party' ? name : words.say('report.why.own'), bytes(wireBytes), String(requests)],
				bars: [null, wireBytes / most, null]
			}))
	};
	const files = heaviest(record.requests);
	const timeline: TableView = {
		title: '',
		head: (['file', 'sent', 'from', 'until'] as const).map((key) => words.say(`report.load.${key}`)),
		rows: files.map(({ url, wireBytes, startMs, endMs }) => {
			const told = (ms: number | null) => (ms === null ? '–' : localNumber(formatDuration(ms), words.language));
			return { cells: [shortAddress(url), bytes(wireBytes ?? 0), told(startMs), told(endMs)] };
		})
	};
	const about = words.say('report.load.weight.about', { n: files.length });
	return { kind: 'tables', tables: [owners, ...(files.length ? [timeline] : [])], about };
}

/** In the order in which they were asked for. */
function heaviest(requests: readonly RequestRecord[]): RequestRecord[] {
	return requests
		.filter(({ wireBytes, during }) => (wireBytes ?? 0) > 0 && during === 'load')
		.sort((a, b) => b.wireBytes! - a.wireBytes!)
		.slice(0, MOST_FILES)
		.sort((a, b) => a.startMs - b.startMs);
}

function shortAddress(url: string): string {
	const { host, pathname } = new URL(url);
	return `${host}${pathname}`.slice(0, 90);
}
