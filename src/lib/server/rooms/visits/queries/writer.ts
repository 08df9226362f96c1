/** Page views and their histograms, as they come. */
import { addHistograms, packHistograms, unpackHistograms, type Histograms } from '$core/field/packedHistograms';
import { talliesOf, type VisitKind } from '$core/field/tallies';
import type { Visit } from '$core/field/visit';
import type { DeviceClass } from '$core/field/reading';
import { sql, type Db } from '../../../base/db/connection';
import { tallyId } from './store';
import type { VisitFault } from '$core/field/visit';

export interface StoredVisit {
	at: number;
	place_id: number;
	device: DeviceClass;
	sending: number;
	fault: VisitFault | null;
	body: string;
}

/** What is kept of a page view for the live view. */
export interface StoredBody extends Pick<
	Visit,
	'path' | 'navigation' | 'ageMs' | 'metrics' | 'origins' | 'timings' | 'goals'
> {
	network: string;
	/** As it was counted; missing in page views from before kinds were. */
	kind?: VisitKind;
}

/** Histograms that change in this batch, by bucket, device and hour: each is read and written once. */
export class Changes {
	#open = new Map<string, { bucket: number; device: DeviceClass; hour: number; histograms: Histograms }>();

	constructor(private readonly db: Db) {}

	add(bucket: number, device: DeviceClass, hour: number, visit: Counted, sign: 1 | -1) {
		const key = `${bucket}/${device}/${hour}`;
		let change = this.#open.get(key);
		if (!change) {
			change = { bucket, device, hour, histograms: this.#read(bucket, device, hour) };
			this.#open.set(key, change);
		}
		addHistograms(change.histograms, histogramsOf(this.db, visit), sign);
	}

	#read(bucket: number, device: DeviceClass, hour: number): Histograms {
		const row = sql<{ bins: Uint8Array }>(
			this.db,
			'SELECT bins FROM hour_histogram WHERE place_id = ? AND device = ? AND hour = ?'
		).get(bucket, device, hour);
		return row ? unpackHistograms(row.bins) : new Map();
	}

	write(): void {
		for (const { bucket, device, hour, histograms } of this.#open.values())
			saveHour(this.db, bucket, device, hour, histograms);
	}
}

export function saveHour(db: Db, bucket: number, device: DeviceClass, hour: number, histograms: Histograms): void {
	sql(db, 'INSERT OR REPLACE INTO hour_histogram (place_id, device, hour, bins) VALUES (?, ?, ?, ?)').run(
		bucket,
		device,
		hour,
		Buffer.from(packHistograms(histograms))
	);
}

type Counted = Pick<Visit, 'metrics' | 'timings' | 'goals'> & Partial<Pick<StoredBody, 'kind'>>;

export function histogramsOf(db: Db, visit: Counted): Histograms {
	const all: Histograms = new Map();
	for (const { name, bin } of talliesOf(visit, visit.kind)) {
		const id = tallyId(db, name);
		const histogram = all.get(id) ?? new Map<number, number>();
		histogram.set(bin, (histogram.get(bin) ?? 0) + 1);
		all.set(id, histogram);
	}
	return all;
}

export const findVisit = (db: Db, siteId: number, id: string): StoredVisit | undefined =>
	sql<StoredVisit>(db, 'SELECT * FROM visit WHERE site_id = ? AND id = ?').get(siteId, id);

export interface VisitColumns {
	siteId: number;
	id: string;
	/** When its first report came. */
	first: number;
	bucket: number;
	device: string;
	sending: number;
	fault: string | null;
	body: string;
}

export function replaceVisit(db: Db, visit: VisitColumns): void {
	sql(
		db,
		`INSERT OR REPLACE INTO visit (site_id, id, at, place_id, device, sending, fault, body)
			VALUES (@siteId, @id, @first, @bucket, @device, @sending, @fault, @body)`
	).run(visit);
}
