/** Windows of 28 days from own page views, kept beside those of panels and tables. */
import { DEVICE_CLASSES } from '$core/field/reading';
import { addDays, windowEnds, windowStart } from '$core/field/windows';
import { nowIso, type Db } from '../../base/db/connection';
import { FIRST_WINDOWS, newestEnd } from './gathering';
import { hasReading, saveReading } from './queries/readings';
import { bucketOfPage } from '../visits/buckets';
import { daysWithVisits, readingOver } from '../visits/readings';
import { existingSite } from '../clients/view';
import { listPages } from '../pages/view';
import { allSources } from '../visits/view';

const STEP_DAYS = 7;
const MOST_PAGES = 200;

/**
 * Work out the windows that are missing: one of the last whole day, and one a week before.
 * @param pause between pages, so that nobody waits for all of them
 */
export async function saveVisitWindows(
	main: Db,
	visits: Db,
	pause: () => Promise<void>,
	now = nowIso()
): Promise<void> {
	for (const { siteId } of allSources(main)) {
		const days = daysWithVisits(visits, siteId);
		if (!days) continue;
		const ends = windowEnds(newestEnd(now), FIRST_WINDOWS, STEP_DAYS);
		// A window that begins before the script did would be of fewer days than it says.
		for (const until of ends.filter((end) => windowStart(end) >= addDays(days.first, -1)))
			await saveWindow(main, { visits, siteId, until, pause });
	}
}

async function saveWindow(
	main: Db,
	{ visits, siteId, until, pause }: { visits: Db; siteId: number; until: string; pause: () => Promise<void> }
) {
	const { id } = existingSite(main, siteId);
	const pages = listPages(main, { siteId: id, which: 'chosen' }, MOST_PAGES);
	const ofPages = pages.map((page) => ({ pageId: page.id, buckets: [bucketOfPage(page.url)] }));
	const questions = [...ofPages, { pageId: null, buckets: null }];
	const from = windowStart(until);
	for (const { pageId, buckets } of questions) {
		for (const device of DEVICE_CLASSES) {
			const key = { pageId, device, source: 'visits' as const, until };
			if (hasReading(main, siteId, key)) continue;
			saveReading(main, siteId, {
				...key,
				from,
				metrics: readingOver(visits, { siteId, buckets, device, from, until })
			});
		}
		await pause();
	}
}
