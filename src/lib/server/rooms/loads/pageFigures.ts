/**
 * What the lab measured of a page, by conditions: to stand beside what its visitors had. A page's own loads only: those
 * that led elsewhere and those from before it was rebuilt are of other pages.
 */
import { group } from 'd3-array';
import { FIELD_METRICS, type FieldMetric } from '$core/field/histogram';
import { METRIC_IDS, type Figures } from '$core/metrics/catalogue';
import { isSameTemplate } from '$core/load/record/signature';
import { medianOrNull } from '$core/stats/summary';
import type { Db } from '../../base/db/connection';
import { noteLandings } from './landings';
import { countedLoads } from './queries/pageFigures';
import type { OwnRow } from './queries/pageFigures';

export interface LabFigures {
	conditionId: string;
	loads: number;
	/** UTC ISO of the newest load. */
	newestAt: string;
	/** Middle figures. */
	figures: Partial<Record<FieldMetric, number>>;
}

/** Loads that count, newest first: calm, no warm-ups, none that the analyst excluded, all of the page as it is now. */
function ownLoads(db: Db, url: string): OwnRow[] {
	const found = countedLoads(db, url);
	const isNews = noteLandings(
		db,
		found.map(({ id }) => id)
	);
	const noted = isNews ? countedLoads(db, url) : found;
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

/** An address over time: the loads that count, oldest first, by conditions; the newest conditions first. */
export function addressHistory(db: Db, url: string) {
	return [...group(ownLoads(db, url), (row) => row.condition_id)].map(([conditionId, own]) => ({
		conditionId,
		loads: [...own].reverse().map((row) => ({
			id: row.id,
			at: row.started_at,
			figures: Object.fromEntries(METRIC_IDS.map((id) => [id, row[id]])) as Figures
		}))
	}));
}
