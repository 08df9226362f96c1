/** The visits' door of a made-up site with three pages: beacons in, what was counted and refused out. */
import { histogramOfName, histogramsOver } from '../../src/lib/server/rooms/visits/readings';
import type { Beacon, Visit } from '$core/field/visit';
import { weightOf } from '$core/field/histogram';
import { VIEWS } from '$core/field/tallies';
import { USUAL_VISIT_SETTINGS } from '$core/field/visitSettings';
import type { Db } from '../../src/lib/server/base/db/connection';
import { changePages, pastePages } from '../../src/lib/server/rooms/pages/commands';
import { VisitDoor } from '../../src/lib/server/rooms/visits/accept';
import { saveSource } from '../../src/lib/server/rooms/visits/sources';
import { openVisits } from '../../src/lib/server/rooms/visits/store';
import { refusalsOf, secretOf } from '../../src/lib/server/rooms/visits/queries/store';
import { tokenOf } from '../../src/lib/server/rooms/visits/token';
import { VisitWriter } from '../../src/lib/server/rooms/visits/writer';
import { clientWithSite } from './clients';
import type { useQueue } from './queue';
import { aBeacon, aVisit } from './visits';

export const NOW = Date.parse('2026-11-20T10:30:00Z');
export const TODAY = '2026-11-20';
const AGENT = 'Mozilla/5.0 (Linux; Android 14) AppleWebKit/537.36 Chrome/156.0.0.0 Mobile Safari/537.36';

interface Ask {
	origin?: string | null;
	userAgent?: string;
	address?: string;
	now?: number;
}

export function useVisitDoor(q: ReturnType<typeof useQueue>) {
	let visits: Db;
	let door: VisitDoor;
	let writer: VisitWriter;
	let siteId: number;
	let clientId: number;
	let key: string;
	beforeEach(() => {
		({ siteId, clientId } = clientWithSite(q.now.db, 'skerry-line.test'));
		pastePages(q.now.db, siteId, '/timetable\n/news/winter\n/');
		changePages(q.now.db, [1, 2, 3], { isChosen: true });
		visits = openVisits(q.now.folder);
		key = saveSource(q.now.db, siteId, {
			...USUAL_VISIT_SETTINGS,
			timings: [{ name: 'menu', good: 200, poor: 500, margin: 50 }],
			goals: ['booked']
		}).key;
		writer = new VisitWriter(visits);
		door = new VisitDoor(q.now.db, visits, writer, 100);
	});
	afterEach(() => visits.close());

	const beacon = (own: Visit[] = [aVisit()], changes: Partial<Beacon> = {}, now = NOW) =>
		aBeacon(own, { key, token: tokenOf(secretOf(visits), key, now), ...changes });
	const send = (body: unknown, ask: Ask = {}) =>
		door.take({
			body: typeof body === 'string' ? body : JSON.stringify(body),
			origin: ask.origin === undefined ? 'https://skerry-line.test' : ask.origin,
			userAgent: ask.userAgent ?? AGENT,
			address: ask.address ?? '192.0.2.1',
			now: ask.now ?? NOW
		});
	const counted = (bucket: string | null = null, name: string = VIEWS, from = TODAY, until = TODAY) =>
		weightOf(
			histogramOfName(
				visits,
				histogramsOver(visits, { siteId, buckets: bucket === null ? null : [bucket], device: null, from, until }),
				name
			)
		);
	const refused = () => {
		// Counted together with the next write.
		writer.flush();
		return Object.fromEntries(refusalsOf(visits, siteId, NOW).map(({ reason, count }) => [reason, count]));
	};

	return {
		beacon,
		send,
		counted,
		refused,
		/** Of the test that runs. */
		get now() {
			return { visits, siteId, clientId, key };
		}
	};
}
