/** What real visitors had, page by page: for the screen and `GET /api/field`. */
import { assess, failing, type Assessment } from '$core/field/assessment';
import { DEVICE_CLASSES, type DeviceClass, type FieldReading, type Scope } from '$core/field/reading';
import type { FieldMetric } from '$core/field/histogram';
import { describeScope } from '$core/wording/field';
import type { Client } from '../clients/clients';
import { sitesOf, type Site } from '../clients/sites';
import type { Db } from '../db/connection';
import { labFiguresOf } from '../loads/pageFigures';
import { existingPage, listPages, type PageRow } from '../pages/queries';
import { findFieldGathering, isGatheringField } from './gathering';
import { placeOfPage } from '../visits/places';
import { concerns, markersOfSite } from './markers';
import { readingsOf, readingsOfSite, type StoredReading } from './readings';

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
	assessment: Assessment;
	failing: readonly FieldMetric[];
	/** LCP at the 75th percentile, window by window; of the same scope as the figures. */
	trend: { until: string; p75: number }[];
}

type Readings = Map<string, StoredReading[]>;

const keyOf = (pageId: number | null, device: DeviceClass) => `${pageId ?? 'origin'}/${device}`;

function byPage(readings: readonly StoredReading[]): Readings {
	const all: Readings = new Map();
	for (const reading of readings) {
		const key = keyOf(reading.pageId, reading.device);
		all.set(key, [...(all.get(key) ?? []), reading]);
	}
	return all;
}

/** A panel counts for all browsers' visitors and goes on when a script is missing; a table is typed by somebody. */
const SOURCES_IN_ORDER = ['panel', 'visits', 'csv'] as const;

/** What is shown of a page: windows of one scope and one source, oldest first. */
interface Shown {
	scope: Scope | null;
	source: FieldReading['source'] | null;
	/** With figures. */
	windows: StoredReading[];
}

/** Figures of the page itself from any source before those of the whole origin; two sources are never mixed. */
function chooseShown(own: readonly StoredReading[], origin: readonly StoredReading[]): Shown {
	for (const [scope, readings] of [['page', own] as const, ['origin', origin] as const])
		for (const source of SOURCES_IN_ORDER) {
			const ofSource = readings.filter((reading) => reading.source === source);
			if (ofSource.at(-1)?.metrics)
				return { scope, source, windows: ofSource.filter(({ metrics }) => metrics !== null) };
		}
	return { scope: null, source: null, windows: [] };
}

/** The newest window of the page; of the whole origin where the page had too few visits. */
function rowOf({ id, url, type }: PageRow, site: Site, device: DeviceClass, readings: Readings): FieldRow {
	const own = readings.get(keyOf(id, device)) ?? [];
	const { scope, source, windows } = chooseShown(own, readings.get(keyOf(null, device)) ?? []);
	const newest = windows.at(-1) ?? null;
	const metrics = newest?.metrics ?? null;
	return {
		key: keyOf(id, device),
		siteId: site.id,
		pageId: id,
		url,
		type,
		device,
		scope,
		scopeWords: describeScope(scope, own.length > 0),
		source,
		until: newest?.until ?? null,
		metrics,
		assessment: assess(metrics),
		failing: failing(metrics),
		trend: windows.flatMap(({ until, metrics: told }) => (told?.lcp ? [{ until, p75: told.lcp.p75 }] : []))
	};
}

/** Chosen pages of own sites first, then those of competitors; phone and desktop of each. */
export function fieldRows(db: Db, clientId: number): FieldRow[] {
	return sitesOf(db, clientId)
		.filter(({ role }) => role !== 'bench')
		.flatMap((site) => {
			const readings = byPage(readingsOfSite(db, site.id));
			return listPages(db, { siteId: site.id, which: 'chosen' }, MOST_PAGES).flatMap((page) =>
				DEVICE_CLASSES.map((device) => rowOf(page, site, device, readings))
			);
		});
}

export function fieldView(db: Db, { id }: Pick<Client, 'id'>) {
	return { rows: fieldRows(db, id), gathering: findFieldGathering(db, id), isGathering: isGatheringField(db, id) };
}

/** All windows of a page on both devices, and of its origin. */
export function fieldPageView(db: Db, pageId: number) {
	const page = existingPage(db, pageId);
	return {
		page,
		lab: labFiguresOf(db, page.url),
		markers: markersOfSite(db, page.siteId).filter((marker) => concerns(marker, placeOfPage(page.url))),
		devices: DEVICE_CLASSES.map((device) => {
			const own = readingsOf(db, page.siteId, page.id, device);
			const { scope, source, windows } = chooseShown(own, readingsOf(db, page.siteId, null, device));
			const newest = windows.at(-1) ?? null;
			return {
				device,
				scope,
				source,
				scopeWords: describeScope(scope, own.length > 0),
				assessment: assess(newest?.metrics ?? null),
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
