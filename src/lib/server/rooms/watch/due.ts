/** The schedule: what is due gets one block, however long the lab was off; the gap is counted and shown. */
import { nextReading, readingsBetween } from '$core/watch/schedule';
import type { Db } from '../../base/db/connection';
import { requestReading } from './blocks';
import { openReading } from './queries/readings';
import { dueWatches, updateWatch } from './queries/watches';

/** @returns how many blocks were queued */
export function requestDueReadings(db: Db, now = new Date()): number {
	let queued = 0;
	for (const watch of dueWatches(db, now.toISOString())) {
		const { schedule } = watch.settings;
		const due = new Date(watch.nextAt!);
		db.transaction(() => {
			updateWatch(db, watch.id, { ...watch, nextAt: nextReading(schedule, now)?.toISOString() ?? null });
			if (openReading(db, watch.id)) return;
			// Those after the one that was due, up to now, will never come.
			const missed = readingsBetween(schedule, due, now);
			requestReading(db, watch, { why: 'schedule', plannedAt: now.toISOString(), missed });
			queued++;
		})();
	}
	return queued;
}
