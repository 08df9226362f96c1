/** Tables as CSV (RFC 4180). Text that a spreadsheet would run as a formula is disarmed with a leading apostrophe. */
import Papa from 'papaparse';
import { isStepMetric, METRICS } from '../metrics/catalogue';
import type { TrialArm, TrialLoad } from '../trial/types';

export type Cell = string | number | boolean | null;

export function csvOf(head: readonly string[], rows: readonly (readonly Cell[])[]): string {
	return `${Papa.unparse({ fields: [...head], data: rows.map((row) => [...row]) }, { escapeFormulae: true })}\r\n`;
}

export interface CsvLoad extends TrialLoad {
	startedAt: string;
	reason: string | null;
	capped: boolean;
}

/** One row a load; times in ms, sizes in bytes, an empty cell for what was not measured. */
export function loadsCsv(arms: readonly TrialArm[], loads: readonly CsvLoad[]): string {
	// Times of steps stand only where there were steps.
	const metrics = METRICS.filter(({ id }) => !isStepMetric(id) || loads.some(({ figures }) => figures[id] != null));
	const armOf = new Map(arms.map((arm) => [arm.id, arm]));
	const head = [
		'load',
		'started',
		'arm',
		'url',
		'conditions',
		'stage',
		'round',
		'warmup',
		'status',
		'reason',
		'capped',
		'excluded'
	];
	const rows = loads.map((load) => [
		load.id,
		load.startedAt,
		armOf.get(load.armId)?.name ?? '',
		armOf.get(load.armId)?.url ?? '',
		load.conditionId,
		load.stage,
		load.round,
		load.warmup,
		load.status,
		load.reason,
		load.capped,
		load.excluded,
		...metrics.map((metric) => load.figures[metric.id])
	]);
	return csvOf([...head, ...metrics.map((metric) => metric.id)], rows);
}
