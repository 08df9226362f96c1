/**
 * What the lab measured of a page, by conditions: to stand beside what its visitors had. A page's own loads only: those
 * that led elsewhere and those from before it was rebuilt are of other pages.
 */
import { group } from 'd3-array';
import { FIELD_METRICS, type FieldMetric } from '$core/field/histogram';
import { METRIC_IDS, type Figures, type MetricId } from '$core/metrics/catalogue';
import { isSameTemplate } from '$core/load/record/signature';
import { medianOrNull } from '$core/stats/summary';
import { sql, type Db } from '../../base/db/connection';
import { noteLandings } from './landings';

export interface LabFigures {
	conditionId: string;
	loads: number;
	/** UTC ISO of the newest load. */
	newestAt: string;
	/** Middle figures. */
	figures: Partial<Record<FieldMetric, number>>;
}

/** The newest loads count: a page of a month ago is another page. */
const MOST_LOADS = 200;

const COUNTED = `url = ? AND status = 'ok' AND source = 'lab' AND warmup = 0 AND disturbed = 0 AND excluded IS NULL`;

type OwnRow = Record<MetricId, number | null> & {
	id: number;
	condition_id: string;
	started_at: string;
	is_phone: number | null;
	landed: string | null;
	markup: string | null;
};

/** Loads that count, newest first: calm, no warm-ups, none that the analyst excluded, all of the page as it is now. */
function ownLoads(db: Db, url: string): OwnRow[] {
	const rows = () =>
		sql<OwnRow>(
			db,
			`SELECT load.id, condition_id, started_at, landed, markup, body ->> '$.device.mobile' AS is_phone,
				${METRIC_IDS.map((id) => `"${id}"`).join(', ')}
				FROM load LEFT JOIN conditions_version ON hash = conditions_hash
				WHERE ${COUNTED} ORDER BY load.id DESC LIMIT ${MOST_LOADS}`
		).all(url);
	const found = rows();
	const isNews = noteLandings(
		db,
		found.map(({ id }) => id)
	);
	const noted = isNews ? rows() : found;
	// An address that always leads elsewhere stands for the page there.
	const home = noted.some(({ landed }) => landed === null) ? null : (noted[0]?.landed ?? null);
	const own = noted.filter(({ landed }) => landed === home);
	// Sites may build a page otherwise for phones.
	return [...group(own, (row) => row.condition_id).values()].flatMap((loads) =>
		loads.filter(({ markup }) => isSameTemplate(markup ?? '', loads[0]!.markup ?? ''))
	);
}

export function labFiguresOf(db: Db, url: string): LabFigures[] {
	return [...group(ownLoads(db, url), (row) => row.condition_id)].map(([conditionId, own]) => ({
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
	/** UTC ISO. */
	startedAt: string;
	figures: Partial<Figures>;
}

/** The newest loads of an address that count, from a device of that class. */
export function labLoadsOfUrl(db: Db, url: string, device: 'phone' | 'desktop'): PageLoad[] {
	return ownLoads(db, url)
		.filter(({ is_phone }) => is_phone !== null && (is_phone === 1) === (device === 'phone'))
		.map((row) => ({
			conditionId: row.condition_id,
			startedAt: row.started_at,
			figures: Object.fromEntries(METRIC_IDS.map((id) => [id, row[id]]))
		}));
}
