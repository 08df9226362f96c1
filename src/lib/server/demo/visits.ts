/** The demonstration's visits: what the simulated web's population had, as its site's script would have reported it. */
import { existsSync, readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import * as v from 'valibot';
import { addHistograms, type Histograms } from '$core/field/packedHistograms';
import { FIELD_METRICS } from '$core/field/histogram';
import { DEVICE_CLASSES, type DeviceClass } from '$core/field/reading';
import { kindOfVisit } from '$core/field/tallies';
import { RAW_DAYS, VisitSettings } from '$core/field/visitSettings';
import { sql, type Db } from '../base/db/connection';
import { readFact, writeFact } from '../base/db/facts';
import { bucketOfPath } from '../rooms/visits/buckets';
import { saveSource } from '../rooms/visits/sources';
import { hourOf } from '../rooms/visits/store';
import { movedDay } from './calendar';
import { MARKERS, VISIT_SETTINGS, VISITED_HOST, VISIT_KEY } from './scenario';
import { addMarker } from '../rooms/field/markers';
import {
	saveDay,
	bucketsOfSite,
	DAY_MS,
	HOUR_MS,
	bucketId,
	histogramsOf,
	saveHour,
	type StoredBody
} from '../rooms/visits/view';

const FACT = 'demonstration visits';
/** Single page views of the last day, for the live view. */
const RAW_MS = 24 * HOUR_MS;

const Line = v.object({
	at: v.number(),
	path: v.string(),
	device: v.picklist(DEVICE_CLASSES),
	metrics: v.partial(v.object(Object.fromEntries(FIELD_METRICS.map((id) => [id, v.number()])) as never)),
	timings: v.record(v.string(), v.number()),
	goals: v.array(v.string())
});
type Line = {
	at: number;
	path: string;
	device: DeviceClass;
	metrics: Record<string, number>;
	timings: Record<string, number>;
	goals: string[];
};

/** A page and device on a day, or in an hour of the last days. */
interface Cell {
	bucket: number;
	device: DeviceClass;
	slot: number;
	isDay: boolean;
	all: Histograms;
}

/** Once into a data folder that has the demonstration's clients; nothing without a file. */
export function importDemoVisits(main: Db, visits: Db, file: string | undefined, now = Date.now()): void {
	const siteId = demoSite(main);
	if (siteId === null || readFact(main, FACT)) return;
	sql(main, 'UPDATE visit_source SET key = ? WHERE site_id = ?').run(
		VISIT_KEY,
		saveSource(main, siteId, v.parse(VisitSettings, VISIT_SETTINGS)).siteId
	);
	for (const marker of MARKERS) addMarker(main, siteId, { ...marker, day: movedDay(marker.day) });
	if (file && existsSync(file)) visits.transaction(() => readVisits(main, { visits, siteId, file, now }))();
	writeFact(main, FACT, new Date(now).toISOString());
}

function demoSite(main: Db): number | null {
	const row = sql<{ id: number }>(main, 'SELECT id FROM site WHERE host = ? ORDER BY id LIMIT 1').get(VISITED_HOST);
	return row?.id ?? null;
}

function readVisits(
	main: Db,
	{ visits, siteId, file, now }: { visits: Db; siteId: number; file: string; now: number }
): void {
	const lines = gunzipSync(readFileSync(file)).toString('utf8').split('\n').filter(Boolean);
	const buckets = bucketsOfSite(main, siteId);
	const firstHour = (Math.floor(now / DAY_MS) - RAW_DAYS) * 24;
	const cells = new Map<string, Cell>();
	for (const text of lines) {
		const line = v.parse(Line, JSON.parse(text)) as Line;
		const bucket = bucketId(visits, siteId, bucketOfPath(line.path, buckets));
		const hour = hourOf(line.at);
		const isDay = hour < firstHour;
		const slot = isDay ? Math.floor(line.at / DAY_MS) : hour;
		const key = `${bucket}/${line.device}/${isDay}/${slot}`;
		const cell = cells.get(key) ?? { bucket, device: line.device, slot, isDay, all: new Map() };
		cells.set(key, cell);
		const kind = kindOfVisit(networkOf(line.device), NAVIGATION);
		addHistograms(cell.all, histogramsOf(visits, { ...line, kind }));
		if (line.at > now - RAW_MS) saveRaw(visits, siteId, bucket, line);
	}
	for (const { bucket, device, slot, isDay, all } of cells.values())
		(isDay ? saveDay : saveHour)(visits, bucket, device, slot, all);
}

/** Recorded visitors come to a page each, and desktops' browsers here do not say how they are connected. */
const NAVIGATION = 'navigate';
const networkOf = (device: DeviceClass) => (device === 'phone' ? '4g' : '');

/** As the live view shows it; it is counted already. */
function saveRaw(
	visits: Db,
	siteId: number,
	bucket: number,
	{ at, device, path, metrics, timings, goals }: Line
): void {
	const body: StoredBody = {
		path,
		navigation: NAVIGATION,
		ageMs: 20_000,
		metrics,
		origins: {},
		timings,
		goals,
		network: networkOf(device),
		kind: kindOfVisit(networkOf(device), NAVIGATION)
	};
	sql(
		visits,
		`INSERT OR IGNORE INTO visit (site_id, id, at, place_id, device, sending, fault, body)
			VALUES (@siteId, @id, @at, @bucket, @device, 1, NULL, @body)`
	).run({ siteId, id: `demo-${at}-${path}-${device}`, at, bucket, device, body: JSON.stringify(body) });
}
