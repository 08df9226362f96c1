/**
 * Visits as a released version stored them, in `test/server/databases/visits-1.db.br`: written by that version's own
 * writer from the page views below, the first two days put away as days. What the file must say is reckoned from these.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliDecompressSync } from 'node:zlib';
import { seededRandom } from '$core/stats/random';
import type { IncomingVisit } from '../../src/lib/server/rooms/visits/writer';
import { aVisit } from './visits';

const FILE = 'test/server/databases/visits-1.db.br';
const DAYS = [0, 1, 9];
const EACH = 60;

/** First of the days on which they came, UTC. */
export const FIRST_DAY = '2026-10-01';
export const LAST_DAY = '2026-10-10';

/** In the order in which they came; times in ms since 1970. */
export function releasedVisits(): IncomingVisit[] {
	const random = seededRandom(90);
	const begin = Date.parse(`${FIRST_DAY}T08:00:00Z`);
	return DAYS.flatMap((day) =>
		Array.from({ length: EACH }, (_, i) => ({
			siteId: 1,
			bucket: i % 3 ? '/timetable' : '/',
			device: i % 2 ? ('phone' as const) : ('desktop' as const),
			network: '4g',
			at: begin + day * 86_400_000 + i * 60_000,
			fault: null,
			visit: aVisit({
				id: `released-${day}-${i}`,
				path: i % 3 ? '/timetable' : '/',
				metrics: { lcp: 800 + Math.round(4000 * random()), inp: 40 + Math.round(300 * random()), cls: random() * 0.3 },
				timings: { menu: 100 + i },
				goals: i % 10 === 0 ? ['booked'] : []
			})
		}))
	);
}

/** Put the file into a data folder. */
export function bucketVisits(folder: string): void {
	writeFileSync(join(folder, 'visits.db'), brotliDecompressSync(readFileSync(FILE)));
}
