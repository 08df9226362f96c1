/** Loads of an address that count. */
import { sql, type Db } from '../../../base/db/connection';
import { METRIC_IDS, type MetricId } from '$core/metrics/catalogue';

/** The newest loads count: a page of a month ago is another page. */
const MOST_LOADS = 200;

const COUNTED = `url = ? AND status = 'ok' AND source = 'lab' AND warmup = 0 AND disturbed = 0 AND excluded IS NULL`;

export type OwnRow = Record<MetricId, number | null> & {
	id: number;
	condition_id: string;
	started_at: string;
	is_phone: number | null;
	landed: string | null;
	markup: string | null;
};

/** Calm loads of an address, newest first: no warm-ups, none that the analyst excluded. */
export const countedLoads = (db: Db, url: string): OwnRow[] =>
	sql<OwnRow>(
		db,
		`SELECT load.id, condition_id, started_at, landed, markup, body ->> '$.device.mobile' AS is_phone,
			${METRIC_IDS.map((id) => `"${id}"`).join(', ')}
			FROM load LEFT JOIN conditions_version ON hash = conditions_hash
			WHERE ${COUNTED} ORDER BY load.id DESC LIMIT ${MOST_LOADS}`
	).all(url);
