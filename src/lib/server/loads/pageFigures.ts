/** What the lab measured of a page, by conditions: to stand beside what its visitors had. */
import { group } from 'd3-array';
import { FIELD_METRICS, type FieldMetric } from '$core/field/histogram';
import { METRIC_IDS, type Figures, type MetricId } from '$core/metrics/catalogue';
import { medianOrNull } from '$core/stats/summary';
import { sql, type Db } from '../db/connection';

export interface LabFigures {
	conditionId: string;
	loads: number;
	/** UTC ISO of the newest load. */
	newestAt: string;
	/** Middle figures. */
	figures: Partial<Record<FieldMetric, number>>;
}

type Row = Record<FieldMetric, number | null> & { condition_id: string; started_at: string };

/** The newest loads count: a page of a month ago is another page. */
const MOST_LOADS = 200;

const COUNTED = `url = ? AND status = 'ok' AND source = 'lab' AND warmup = 0 AND disturbed = 0 AND excluded IS NULL`;

/** Loads that count: calm, no warm-ups, none that the analyst excluded. */
export function labFiguresOf(db: Db, url: string): LabFigures[] {
	const rows = sql<Row>(
		db,
		`SELECT condition_id, started_at, ${FIELD_METRICS.join(', ')} FROM load
			WHERE ${COUNTED} ORDER BY id DESC LIMIT ${MOST_LOADS}`
	).all(url);
	return [...group(rows, (row) => row.condition_id)].map(([conditionId, own]) => ({
		conditionId,
		loads: own.length,
		newestAt: own[0]!.started_at,
		figures: Object.fromEntries(
			FIELD_METRICS.flatMap((metric) => {
				const middle = medianOrNull(own.flatMap((row) => row[metric] ?? []));
				return middle === null ? [] : [[metric, middle]];
			})
		)
	}));
}

export interface PageLoad {
	conditionId: string;
	figures: Partial<Figures>;
}

/** The newest loads of an address that count, from a device of that class. */
export function labLoadsOfUrl(db: Db, url: string, device: 'phone' | 'desktop'): PageLoad[] {
	const rows = sql<Record<MetricId, number | null> & { is_phone: number | null; condition_id: string }>(
		db,
		`SELECT ${METRIC_IDS.map((id) => `"${id}"`).join(', ')}, body ->> '$.device.mobile' AS is_phone, condition_id FROM load
			JOIN conditions_version ON hash = conditions_hash
			WHERE ${COUNTED} ORDER BY load.id DESC LIMIT ${MOST_LOADS}`
	).all(url);
	return rows
		.filter(({ is_phone }) => (is_phone === 1) === (device === 'phone'))
		.map((row) => ({
			conditionId: row.condition_id,
			figures: Object.fromEntries(METRIC_IDS.map((id) => [id, row[id]]))
		}));
}
