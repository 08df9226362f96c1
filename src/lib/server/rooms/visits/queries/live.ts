/** The visits since midnight, and whether the script of one page works. */
import type { FieldMetric } from '$core/field/histogram';
import type { DeviceClass } from '$core/field/reading';
import type { VisitFault } from '$core/field/visit';
import type { VisitSettings } from '$core/field/visitSettings';
import { hourIn, startOfDay } from '$core/field/localDay';
import { sql, type Db } from '../../../base/db/connection';
import { refusalsOf } from './store';
import type { VisitSource } from './sources';
import type { StoredBody } from './writer';

const HOUR_MS = 3_600_000;

const MOST_ROWS = 200;

export interface LiveVisit extends StoredBody {
	id: string;
	/** UTC ISO, by this server's clock. */
	at: string;
	device: DeviceClass;
	/** Kept here, but not counted. */
	fault: VisitFault | null;
}

interface Row {
	id: string;
	at: number;
	device: DeviceClass;
	fault: VisitFault | null;
	body: string;
}

const asLive = ({ id, at, device, fault, body }: Row): LiveVisit => ({
	id,
	at: new Date(at).toISOString(),
	device,
	fault,
	...(JSON.parse(body) as StoredBody)
});

/** Newest first. @param since ms since 1970 */
function visitsSince(db: Db, siteId: number, since: number): LiveVisit[] {
	return sql<Row>(
		db,
		`SELECT id, at, device, fault, body FROM visit WHERE site_id = ? AND at >= ? ORDER BY at DESC LIMIT ${MOST_ROWS}`
	)
		.all(siteId, since)
		.map(asLive);
}

/** Why a metric did not come with the page views of a page. */
export type MissingReason = 'no-input' | 'no-goal' | 'never-set' | 'not-reported';

export interface ScriptCheck {
	path: string;
	/** Page views of the last seven days that were kept, up to 50. */
	seen: number;
	lastAt: string | null;
	metrics: { name: string; came: number; missing: MissingReason | null }[];
}

const CHECKED = 50;

const METRICS: readonly FieldMetric[] = ['lcp', 'inp', 'cls', 'fcp', 'ttfb'];

/** Script seen, these metrics came, these did not and why. */
export function checkPage(db: Db, siteId: number, path: string, settings: VisitSettings): ScriptCheck {
	const visits = sql<Row>(
		db,
		`SELECT id, at, device, fault, body FROM visit
			WHERE site_id = @siteId AND body ->> 'path' = @path ORDER BY at DESC LIMIT ${CHECKED}`
	)
		.all({ siteId, path })
		.map(asLive);
	const count = (has: (visit: LiveVisit) => boolean) => visits.filter(has).length;
	const line = (name: string, came: number, reason: MissingReason) => ({
		name,
		came,
		missing: came === 0 && visits.length > 0 ? reason : null
	});
	return {
		path,
		seen: visits.length,
		lastAt: visits[0]?.at ?? null,
		metrics: [
			...METRICS.map((id) =>
				line(
					id,
					count(({ metrics }) => metrics[id] !== undefined),
					id === 'inp' ? 'no-input' : 'not-reported'
				)
			),
			...settings.timings.map(({ name }) =>
				line(
					name,
					count(({ timings }) => name in timings),
					'never-set'
				)
			),
			...settings.goals.map((goal) =>
				line(
					goal,
					count(({ goals }) => goals.includes(goal)),
					'no-goal'
				)
			)
		]
	};
}

/** What the screen of a site's visits shows, and `GET /api/visits`. */
export function liveView(db: Db, { siteId, settings }: Pick<VisitSource, 'siteId' | 'settings'>, now = Date.now()) {
	const { timeZone } = settings;
	const midnight = startOfDay(timeZone, now);
	const visits = visitsSince(db, siteId, midnight);
	const views = sql<{ n: number }>(db, 'SELECT count(*) AS n FROM visit WHERE site_id = ?').get(siteId)!.n;
	return {
		visits,
		kept: views,
		hours: hoursOf(db, siteId, { midnight, now, timeZone }),
		timeZone,
		refusals: refusalsOf(db, siteId, now)
	};
}

/** Page views that count, by the hours of the day so far; by programs are left out. */
function hoursOf(
	db: Db,
	siteId: number,
	{ midnight, now, timeZone }: { midnight: number; now: number; timeZone: string }
): { hour: number; views: number }[] {
	const rows = sql<{ hour: number; views: number }>(
		db,
		`SELECT CAST((at - @midnight) / ${HOUR_MS} AS INTEGER) AS hour, count(*) AS views FROM visit
			WHERE site_id = @siteId AND at >= @midnight AND fault IS NULL GROUP BY 1`
	).all({ siteId, midnight });
	const views = new Map(rows.map((row) => [row.hour, row.views]));
	return Array.from({ length: Math.floor((now - midnight) / HOUR_MS) + 1 }, (_, i) => ({
		hour: hourIn(timeZone, midnight + i * HOUR_MS),
		views: views.get(i) ?? 0
	}));
}
