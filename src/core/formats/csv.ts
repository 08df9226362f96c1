/** Tables as CSV (RFC 4180). Text that a spreadsheet would run as a formula is disarmed with a leading apostrophe. */
import Papa from 'papaparse';
import { METRICS } from '../metrics/catalogue';
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
		...METRICS.map((metric) => load.figures[metric.id])
	]);
	return csvOf([...head, ...METRICS.map((metric) => metric.id)], rows);
}
