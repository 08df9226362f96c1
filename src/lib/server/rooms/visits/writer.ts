/** The one writer of visits: page views wait for some ms, and are written together. */
import { kindOfVisit } from '$core/field/tallies';
import type { Refusal, Visit, VisitFault } from '$core/field/visit';
import { RAW_DAYS } from '$core/field/visitSettings';
import type { DeviceClass } from '$core/field/reading';
import type { Db } from '../../base/db/connection';
import { countRefusal, DAY_MS, bucketId } from './queries/store';
import { hourOf } from './store';
import { Changes, type StoredBody, findVisit, replaceVisit } from './queries/writer';

export interface IncomingVisit {
	siteId: number;
	/** Page of the client's list, a pattern of paths, or `/*` for all else. */
	bucket: string;
	device: DeviceClass;
	network: string;
	/** When it was received, ms: the visitor's clock is not asked. */
	at: number;
	/** Kept for the live view, but not counted. */
	fault: VisitFault | null;
	visit: Visit;
}

type Waiting = IncomingVisit & { done: () => void; fail: (error: unknown) => void };

const FLUSH_AFTER_MS = 8;

const MOST_AT_ONCE = 500;

export class VisitWriter {
	#waiting: Waiting[] = [];
	/** Counted since the last write, by site and reason: a flood must not write once a beacon. */
	#refused = new Map<string, { siteId: number; reason: Refusal; at: number; count: number }>();
	#timer: NodeJS.Timeout | null = null;

	constructor(private readonly db: Db) {}

	/** Resolves once it is on the disk: what was acknowledged is not lost. */
	take(incoming: readonly IncomingVisit[]): Promise<void> {
		return new Promise((resolve, reject) => {
			let open = incoming.length;
			if (open === 0) return resolve();
			const done = () => --open === 0 && resolve();
			for (const visit of incoming) this.#waiting.push({ ...visit, done, fail: reject });
			this.#timer ??= setTimeout(() => this.flush(), FLUSH_AFTER_MS);
		});
	}

	refuse(siteId: number, reason: Refusal, at: number, count: number): void {
		const key = `${siteId}/${reason}`;
		const earlier = this.#refused.get(key);
		this.#refused.set(key, { siteId, reason, at, count: count + (earlier?.count ?? 0) });
		this.#timer ??= setTimeout(() => this.flush(), FLUSH_AFTER_MS);
	}

	flush(): void {
		if (this.#timer) clearTimeout(this.#timer);
		this.#timer = null;
		const batch = this.#waiting.splice(0, MOST_AT_ONCE);
		const refused = [...this.#refused.values()];
		this.#refused.clear();
		try {
			this.db
				.transaction(() => {
					storeVisits(this.db, batch);
					for (const { siteId, reason, at, count } of refused) countRefusal(this.db, siteId, reason, at, count);
				})
				.immediate();
			for (const { done } of batch) done();
		} catch (error) {
			for (const { fail } of batch) fail(error);
		}
		if (this.#waiting.length) this.#timer = setTimeout(() => this.flush(), 0);
	}
}

/** In a transaction. A page view that was sent before is replaced by a later sending, and only by that. */
function storeVisits(db: Db, batch: readonly IncomingVisit[]): void {
	const changes = new Changes(db);
	for (const incoming of batch) storeVisit(db, incoming, changes);
	changes.write();
}

function storeVisit(db: Db, incoming: IncomingVisit, changes: Changes): void {
	const { siteId, visit, at, fault } = incoming;
	const earlier = findVisit(db, siteId, visit.id);
	if (earlier && earlier.sending >= visit.sending) return countRefusal(db, siteId, 'repeated', at);
	// What it replaces may have been put away with its day: then nobody knows what it was counted as.
	if (!earlier && visit.sending > 1 && visit.ageMs > RAW_DAYS * DAY_MS) return countRefusal(db, siteId, 'late', at);
	const device = earlier?.device ?? incoming.device;
	const bucket = earlier?.place_id ?? bucketId(db, siteId, incoming.bucket);
	const first = earlier?.at ?? at;
	if (earlier && !earlier.fault) changes.add(bucket, device, hourOf(first), JSON.parse(earlier.body) as StoredBody, -1);
	const kind = kindOfVisit(incoming.network, visit.navigation);
	if (!fault) changes.add(bucket, device, hourOf(first), { ...visit, kind }, 1);
	if (fault && !earlier) countRefusal(db, siteId, fault, at);
	const { id, sending, ...body } = visit;
	const stored = JSON.stringify({ ...body, network: incoming.network, kind } satisfies StoredBody);
	replaceVisit(db, { siteId, id, first, bucket, device, sending, fault, body: stored });
}
