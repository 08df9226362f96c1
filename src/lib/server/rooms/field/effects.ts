/** What each release did to a page's visitors: from own visits where there are enough days, else from windows. */
import { dirname } from 'node:path';
import { effectByDays, TREND_DAYS, type DayOfVisits } from '$core/field/effect/byDays';
import { effectByWindows, type WindowFigure } from '$core/field/effect/byWindows';
import type { EffectAnswer } from '$core/field/effect/types';
import type { FieldMetric } from '$core/field/histogram';
import type { DeviceClass } from '$core/field/reading';
import { addDays } from '$core/field/windows';
import { nowIso, type Db } from '../../base/db/connection';
import { bucketOfPage } from '../visits/buckets';
import { daysByKind, daysOf, daysWithVisits } from '../visits/readings';
import { openVisits } from '../visits/store';
import { newestEnd } from './gathering';
import { concerns } from './markers';
import { markersOfSite, type SiteMarker } from './queries/markers';
import { readingsOf, type StoredReading } from './queries/readings';
import { existingSite, sitesOf } from '../clients/view';
import { existingPage, listPages } from '../pages/view';
import { bucketsWithVisits } from '../visits/view';

const METRICS: readonly FieldMetric[] = ['lcp', 'inp', 'cls'];
/** Days before and after a release that are looked at. */
const DAYS = 28;
const MOST_MARKERS = 6;
const MOST_PAGES = 50;

/** Of what the drift was taken; null where nothing stood still. */
export type ControlKind = 'other-pages' | 'competitor';

export interface MarkedEffect {
	marker: SiteMarker;
	metrics: { metric: FieldMetric; control: ControlKind | null; answer: EffectAnswer }[];
}

/** Databases of visits that this thread has open, by folder. */
const opened = new Map<string, Db>();

/** The newest markers that concern a page; each with its effect on the visitors of one device class. */
export function effectsOfPage(db: Db, pageId: number, device: DeviceClass): MarkedEffect[] {
	const page = existingPage(db, pageId);
	const bucket = bucketOfPage(page.url);
	const markers = markersOfSite(db, page.siteId).filter((marker) => concerns(marker, bucket));
	const folder = dirname(db.name);
	const visits = opened.get(folder) ?? openVisits(folder);
	opened.set(folder, visits);
	const at: Bucket = { db, visits, siteId: page.siteId, pageId, bucket, device };
	return markers.slice(0, MOST_MARKERS).map((marker) => ({
		marker,
		metrics: METRICS.map((metric) => ({ metric, ...effectOf(at, marker, metric) }))
	}));
}

interface Bucket {
	db: Db;
	visits: Db;
	siteId: number;
	pageId: number;
	bucket: string;
	device: DeviceClass;
}

function effectOf(at: Bucket, marker: SiteMarker, metric: FieldMetric) {
	const byDays = effectFromDays(at, marker, metric);
	if (byDays && 'effect' in byDays.answer) return byDays;
	const byWindows = effectFromWindows(at, marker, metric);
	if (byWindows && 'effect' in byWindows.answer) return byWindows;
	const soonest = [byDays, byWindows].flatMap((item) => (item && 'tooSoon' in item.answer ? [item] : []));
	const waiting = soonest.find(({ answer }) => 'tooSoon' in answer && answer.tooSoon.moreDays !== null);
	return waiting ?? { control: null, answer: { tooSoon: { moreDays: null } } };
}

/** @returns null where the site has no visits of its own */
function effectFromDays({ visits, siteId, bucket, device }: Bucket, marker: SiteMarker, metric: FieldMetric) {
	if (!daysWithVisits(visits, siteId)) return null;
	const range = {
		siteId,
		from: addDays(marker.day, -TREND_DAYS),
		until: earlier(addDays(marker.day, DAYS), newestEnd(nowIso()))
	};
	const ofDevice = (buckets: readonly string[]): DayOfVisits[] =>
		daysOf(visits, metric, { ...range, buckets }).filter((day) => day.device === device);
	// Pages without the release had the same season, networks and visitors.
	const others = bucketsWithVisits(visits, siteId).filter((path) => !concerns(marker, path));
	const control = others.length ? ofDevice(others) : null;
	const near = { ...range, from: addDays(marker.day, -DAYS) };
	const kinds = daysByKind(visits, metric, { ...near, buckets: [bucket] }).filter((day) => day.device === device);
	const answer = effectByDays(metric, ofDevice([bucket]), control, marker.day, 1, kinds);
	const isControlled = 'effect' in answer && answer.effect.drift !== null;
	return { control: isControlled ? ('other-pages' as const) : null, answer };
}

function effectFromWindows(at: Bucket, marker: SiteMarker, metric: FieldMetric) {
	const { db, siteId, pageId, device } = at;
	const own = figuresOf(readingsOf(db, siteId, pageId, device), metric);
	if (!own.length) return null;
	const rival = competitorWindows(at, metric);
	if (rival.length) return { control: 'competitor' as const, answer: effectByWindows(metric, own, rival, marker.day) };
	const others = otherPagesWindows(at, marker, metric);
	const control = others.length ? ('other-pages' as const) : null;
	return { control, answer: effectByWindows(metric, own, others.length ? others : null, marker.day) };
}

/** Today is not over: its hours so far are no sample of a day. */
const earlier = (a: string, b: string) => (a < b ? a : b);

/** Windows of one source: two sources count differently. Panels first, since they go on when a script is missing. */
function figuresOf(readings: readonly StoredReading[], metric: FieldMetric): WindowFigure[] {
	for (const source of ['panel', 'visits', 'csv'] as const) {
		const own = readings.flatMap(({ source: from, until, metrics }) => {
			const p75 = metrics?.[metric]?.p75;
			return from === source && p75 !== undefined ? [{ until, p75 }] : [];
		});
		if (own.length) return own;
	}
	return [];
}

/** Of the first competitor whose whole origin is known. */
function competitorWindows({ db, siteId, device }: Bucket, metric: FieldMetric): WindowFigure[] {
	const { clientId } = existingSite(db, siteId);
	for (const site of sitesOf(db, clientId).filter(({ role }) => role === 'competitor')) {
		const windows = figuresOf(readingsOf(db, site.id, null, device), metric);
		if (windows.length) return windows;
	}
	return [];
}

/** Pages of the site that the marker does not concern: the middle of them on the log scale, window by window. */
function otherPagesWindows({ db, siteId, device }: Bucket, marker: SiteMarker, metric: FieldMetric): WindowFigure[] {
	const others = listPages(db, { siteId, which: 'chosen' }, MOST_PAGES).filter(
		({ url }) => !concerns(marker, bucketOfPage(url))
	);
	const figures = others
		.map(({ id }) => figuresOf(readingsOf(db, siteId, id, device), metric))
		.filter((own) => own.length);
	const logs = new Map<string, number[]>();
	for (const { until, p75 } of figures.flat())
		if (p75 > 0) logs.set(until, [...(logs.get(until) ?? []), Math.log(p75)]);
	// Only windows that every one of them has: else the mix of pages would drift.
	return [...logs]
		.filter(([, own]) => own.length === figures.length)
		.map(([until, own]) => ({ until, p75: Math.exp(own.reduce((sum, value) => sum + value, 0) / own.length) }));
}
