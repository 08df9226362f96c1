/** What is done for visits beside taking them: put away, windows worked out; a little at a time, so that none waits. */
import { setTimeout as pause } from 'node:timers/promises';
import type { Db } from '../../base/db/connection';
import type { Log } from '../../base/log';
import { putAway } from '../visits/merge';
import { deleteVisitsOf } from '../visits/view';
import { saveVisitWindows } from './visitWindows';
import { deleteOldDays, allSources } from '../visits/view';
import { sitesWithVisits, isSite } from './queries/visitKeeping';

const EVERY_MS = 10 * 60_000;
/** Page views come in between two pieces of work. */
const BETWEEN_MS = 20;

/** For as long as web runs. */
export function keepVisits(main: Db, visits: Db, log: Log): void {
	let isWorking = false;
	const work = async () => {
		if (isWorking) return;
		isWorking = true;
		try {
			await keepOnce(main, visits, Date.now());
		} catch (error) {
			log.warn({ error: (error as Error).message }, 'visits could not be put away');
		} finally {
			isWorking = false;
		}
	};
	setInterval(() => void work(), EVERY_MS).unref();
	setTimeout(() => void work(), BETWEEN_MS).unref();
}

export async function keepOnce(main: Db, visits: Db, now: number): Promise<void> {
	forgetDeletedSites(main, visits);
	while (putAway(visits, now)) await pause(BETWEEN_MS);
	for (const { siteId, settings } of allSources(main)) deleteOldDays(visits, siteId, settings.keepDays, now);
	await saveVisitWindows(main, visits, () => pause(BETWEEN_MS).then(() => undefined), new Date(now).toISOString());
}

/** Visits are in a database of their own: those of a site that was deleted go here. */
function forgetDeletedSites(main: Db, visits: Db): void {
	for (const id of sitesWithVisits(visits)) if (!isSite(main, id)) deleteVisitsOf(visits, id);
}
