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

/** The newest window of the page; of the whole origin where the page had too few visits. */
function rowOf({ id, url, type }: PageRow, site: Site, device: DeviceClass, readings: Readings): FieldRow {
	const own = readings.get(keyOf(id, device)) ?? [];
	const origin = readings.get(keyOf(null, device)) ?? [];
	const newestOwn = own.at(-1);
	const scope: Scope | null = newestOwn?.metrics ? 'page' : origin.at(-1)?.metrics ? 'origin' : null;
	const shown = scope === 'page' ? own : scope === 'origin' ? origin : [];
	const newest = shown.at(-1) ?? null;
	const metrics = newest?.metrics ?? null;
	return {
		key: keyOf(id, device),
		siteId: site.id,
		pageId: id,
		url,
		type,
		device,
		scope,
		scopeWords: describeScope(scope, newestOwn !== undefined),
		until: newest?.until ?? null,
		metrics,
		assessment: assess(metrics),
		failing: failing(metrics),
		trend: shown.flatMap(({ until, metrics: told }) => (told?.lcp ? [{ until, p75: told.lcp.p75 }] : []))
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
		devices: DEVICE_CLASSES.map((device) => {
			const own = readingsOf(db, page.siteId, page.id, device);
			const origin = readingsOf(db, page.siteId, null, device);
			const scope: Scope | null = own.at(-1)?.metrics ? 'page' : origin.at(-1)?.metrics ? 'origin' : null;
			const shown = (scope === 'page' ? own : scope === 'origin' ? origin : []).filter(
				({ metrics }) => metrics !== null
			);
			const newest = shown.at(-1) ?? null;
			return {
				device,
				scope,
				scopeWords: describeScope(scope, own.length > 0),
				assessment: assess(newest?.metrics ?? null),
				newest,
				windows: shown.map(({ from, until, metrics }) => ({
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
