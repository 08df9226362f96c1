/** What real visitors had, page by page: for the screen and `GET /api/field`. */
import { group } from 'd3-array';
import { assess, failing, type Absence, type Assessment } from '$core/field/assessment';
import { DEVICE_CLASSES, type DeviceClass, type FieldReading, type Scope } from '$core/field/reading';
import type { FieldMetric } from '$core/field/histogram';
import { describeAssessment, describeScope } from '$core/wording/field';
import type { Db } from '../../base/db/connection';
import { labFiguresOf } from '../loads/pageFigures';
import { findFieldGathering } from './gathering';
import { isGatheringField } from './queries/gathering';
import { bucketOfPage } from '../visits/buckets';
import { concerns } from './markers';
import { markersOfSite } from './queries/markers';
import {
	figuresOfReadings,
	readingsOf,
	windowLinesOfSite,
	type StoredReading,
	type WindowLine
} from './queries/readings';
import { type Client, existingSite, sitesOf, type Site } from '../clients/view';
import { anyPageWithUrl, existingPage, findPage, listPages, type PageRow } from '../pages/view';

export { type DeletedMarker } from './queries/markers';
export { MarkerInput, existingMarker, fileOfMarker, markersOfSite } from './queries/markers';

const MOST_PAGES = 200;

export interface FieldRow {
	/** Page and device. */
	key: string;
	siteId: number;
	pageId: number;
	url: string;
	type: string | null;
	device: DeviceClass;
	/** Null: nothing is known, not even of the origin. */
	scope: Scope | null;
	/** Of what the figures are, in words. */
	scopeWords: string;
	/** Who counted; null where nothing is known. */
	source: FieldReading['source'] | null;
	until: string | null;
	metrics: FieldReading['metrics'] | null;
	/** Why the page has no figures of its own; null where it has. */
	absence: Absence | null;
	assessment: Assessment;
	assessmentWords: string;
	failing: readonly FieldMetric[];
	/** How it was in the newest window that shares no day with this one; null where there is none. */
	earlier: { until: string; assessment: Assessment; metrics: FieldReading['metrics'] | null } | null;
	/** LCP at the 75th percentile, window by window; of the same scope as the figures. */
	trend: { until: string; p75: number }[];
}

type Lines = Map<string, WindowLine[]>;

const keyOf = (pageId: number | null, device: DeviceClass) => `${pageId ?? 'origin'}/${device}`;

function byPage(lines: readonly WindowLine[]): Lines {
	const all: Lines = new Map();
	for (const line of lines) {
		const key = keyOf(line.pageId, line.device);
		const own = all.get(key);
		if (own) own.push(line);
		else all.set(key, [line]);
	}
	return all;
}

/** A panel counts for all browsers' visitors and goes on when a script is missing; a table is typed by somebody. */
const SOURCES_IN_ORDER = ['panel', 'visits', 'csv'] as const;

/** What is shown of a page: windows of one scope and one source, oldest first. */
interface Shown<Window> {
	scope: Scope | null;
	source: FieldReading['source'] | null;
	/** With figures. */
	windows: Window[];
}

/** Figures of the page itself from any source before those of the whole origin; two sources are never mixed. */
function chooseShown<Window extends Pick<WindowLine, 'source' | 'isEmpty'>>(
	own: readonly Window[],
	origin: readonly Window[]
): Shown<Window> {
	for (const [scope, windows] of [['page', own] as const, ['origin', origin] as const])
		for (const source of SOURCES_IN_ORDER) {
			const ofSource = windows.filter((window) => window.source === source);
			if (ofSource.at(-1)?.isEmpty === false)
				return { scope, source, windows: ofSource.filter(({ isEmpty }) => !isEmpty) };
		}
	return { scope: null, source: null, windows: [] };
}

interface ChosenRow {
	page: PageRow;
	device: DeviceClass;
	absence: Absence | null;
	shown: Shown<WindowLine>;
}

/** The newest window of the page; of the whole origin where the page had too few visits. */
function chosenRows(db: Db, { id }: Site, isUnanswered: boolean): ChosenRow[] {
	const lines = byPage(windowLinesOfSite(db, id));
	const pages = listPages(db, { siteId: id, which: 'chosen' }, MOST_PAGES);
	return pages.flatMap((page) => chosenRow(page, lines, isUnanswered));
}

/** @param own windows of the page itself */
function absenceOf(own: readonly Pick<WindowLine, 'isEmpty'>[], isUnanswered: boolean): Absence | null {
	if (own.some(({ isEmpty }) => !isEmpty)) return null;
	if (own.length) return 'too-few';
	return isUnanswered ? 'no-answer' : 'not-asked';
}

/** The panel was asked last for a client's pages, and did not answer for all of them. */
const isUnanswered = (db: Db, clientId: number) => (findFieldGathering(db, clientId)?.fault ?? null) !== null;

const isUnansweredAt = (db: Db, siteId: number) => isUnanswered(db, existingSite(db, siteId).clientId);

function chosenRow(page: PageRow, lines: Lines, isUnanswered: boolean): ChosenRow[] {
	return DEVICE_CLASSES.map((device) => {
		const own = lines.get(keyOf(page.id, device)) ?? [];
		const shown = chooseShown(own, lines.get(keyOf(null, device)) ?? []);
		return { page, device, absence: absenceOf(own, isUnanswered), shown };
	});
}

function rowOf({ page, device, absence, shown }: ChosenRow, figures: Map<number, FieldReading['metrics']>): FieldRow {
	const { scope, source, windows } = shown;
	const newest = windows.at(-1) ?? null;
	const before = newest && earlierOf(windows, newest);
	const metrics = (newest && figures.get(newest.id)) ?? null;
	return {
		key: keyOf(page.id, device),
		siteId: page.siteId,
		pageId: page.id,
		url: page.url,
		type: page.type,
		device,
		scope,
		scopeWords: describeScope(scope, absence),
		source,
		until: newest?.until ?? null,
		metrics,
		absence,
		assessment: assess(metrics, absence ?? undefined),
		assessmentWords: describeAssessment(metrics, absence ?? undefined),
		failing: failing(metrics),
		earlier: before && earlierRow(before, figures.get(before.id) ?? null),
		trend: windows.flatMap(({ until, lcp }) => (lcp === null ? [] : [{ until, p75: lcp }]))
	};
}

function earlierRow({ until }: WindowLine, metrics: FieldReading['metrics'] | null): NonNullable<FieldRow['earlier']> {
	return { until, assessment: assess(metrics), metrics };
}

/** The newest window that ended before another began: of two that overlap a change is told too small. */
function earlierOf(windows: readonly WindowLine[], { from }: WindowLine): WindowLine | null {
	return windows.findLast(({ until }) => until < from) ?? null;
}

/** Chosen pages of own sites first, then those of competitors; phone and desktop of each. */
export function fieldRows(db: Db, clientId: number): FieldRow[] {
	const unanswered = isUnanswered(db, clientId);
	const rows = sitesOf(db, clientId)
		.filter(({ role }) => role !== 'bench')
		.flatMap((site) => chosenRows(db, site, unanswered));
	const used = rows.flatMap(({ shown: { windows } }) => {
		const newest = windows.at(-1);
		return newest ? [newest.id, earlierOf(windows, newest)?.id ?? newest.id] : [];
	});
	const figures = figuresOfReadings(db, [...new Set(used)]);
	return rows.map((row) => rowOf(row, figures));
}

/** Visitors of the page itself have it good, on every device that is told. */
export const passesOnBoth = (rows: readonly Pick<FieldRow, 'scope' | 'assessment'>[]): boolean =>
	rows.length > 0 && rows.every(({ scope, assessment }) => scope === 'page' && assessment === 'passes');

/** Phone and desktop of pages, chosen or not; a page that is gone has none. Each site is read once. */
export function fieldRowsOf(db: Db, pageIds: readonly number[]): Map<number, FieldRow[]> {
	const pages = pageIds.flatMap((id) => findPage(db, id) ?? []);
	const rows = [...group(pages, ({ siteId }) => siteId)].flatMap(([siteId, own]) => {
		const lines = byPage(windowLinesOfSite(db, siteId));
		const unanswered = isUnansweredAt(db, siteId);
		return own.flatMap((page) => chosenRow(page, lines, unanswered));
	});
	const figures = figuresOfReadings(
		db,
		rows.flatMap(({ shown: { windows } }) => windows.map(({ id }) => id))
	);
	return group(
		rows.map((row) => rowOf(row, figures)),
		({ pageId }) => pageId
	);
}

/** Phone and desktop of one page; empty for a page that is gone. */
export const pageFieldRows = (db: Db, pageId: number): FieldRow[] => fieldRowsOf(db, [pageId]).get(pageId) ?? [];

/** What visitors have at an address, by device; empty where no source knows it. */
export function fieldOfAddress(db: Db, url: string) {
	const page = anyPageWithUrl(db, url);
	return (page === null ? [] : pageFieldRows(db, page)).flatMap(({ device, metrics, assessmentWords, scopeWords }) => {
		if (!metrics) return [];
		const p75 = Object.fromEntries(Object.entries(metrics).map(([metric, told]) => [metric, told.p75]));
		return [{ device, words: assessmentWords, scopeWords, p75: p75 as Partial<Record<FieldMetric, number>> }];
	});
}
export type FieldOfAddress = ReturnType<typeof fieldOfAddress>;

export function fieldView(db: Db, { id }: Pick<Client, 'id'>) {
	return { rows: fieldRows(db, id), gathering: findFieldGathering(db, id), isGathering: isGatheringField(db, id) };
}

const withEmptiness = (reading: StoredReading) => ({ ...reading, isEmpty: reading.metrics === null });

/** All windows of a page on both devices, and of its origin. */
export function fieldPageView(db: Db, pageId: number) {
	const page = existingPage(db, pageId);
	const unanswered = isUnansweredAt(db, page.siteId);
	return {
		page,
		lab: labFiguresOf(db, page.url),
		markers: markersOfSite(db, page.siteId).filter((marker) => concerns(marker, bucketOfPage(page.url))),
		devices: DEVICE_CLASSES.map((device) => {
			const own = readingsOf(db, page.siteId, page.id, device).map(withEmptiness);
			const origin = readingsOf(db, page.siteId, null, device).map(withEmptiness);
			const { scope, source, windows } = chooseShown(own, origin);
			const newest = windows.at(-1) ?? null;
			const absence = absenceOf(own, unanswered);
			return {
				device,
				scope,
				source,
				scopeWords: describeScope(scope, absence),
				assessment: assess(newest?.metrics ?? null, absence ?? undefined),
				assessmentWords: describeAssessment(newest?.metrics ?? null, absence ?? undefined),
				newest,
				windows: windows.map(({ from, until, metrics }) => ({
					from,
					until,
					p75: Object.fromEntries(Object.entries(metrics!).map(([metric, told]) => [metric, told.p75])) as Partial<
						Record<FieldMetric, number>
					>
				}))
			};
		})
	};
}
