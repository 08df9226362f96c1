/** Tables as CSV (RFC 4180). Text that a sheet would run as a formula is disarmed with a leading apostrophe. */
import Papa from 'papaparse';
import { isStepMetric, METRICS } from '../metrics/catalogue';
import type { TrialArm, TrialLoad } from '../trial/types';

export type Cell = string | number | boolean | null;

export function csvOf(head: readonly string[], rows: readonly (readonly Cell[])[]): string {
	const fields = head.map(disarmed);
	const data = rows.map((row) => row.map((cell) => (typeof cell === 'string' ? disarmed(cell) : cell)));
	return `${Papa.unparse({ fields, data })}\r\n`;
}

/**
 * Signs that begin a formula, as such and in their full and small widths, behind whatever a sheet may skip: white
 * space, controls, signs without width (OWASP, "CSV Injection"; full width: practice).
 */
const FORMULA = /^[\s\p{Cc}\p{Cf}]*[=+\-@\uff1d\uff0b\uff0d\uff20\ufe62\ufe63\ufe66\ufe6b]/u;
/** Sheets read these away from the beginning, or as the beginning of a command. */
const ODD_START = /^[\t\r\n\0]/;
const NUMBER = /^[-+]?\d+([.,]\d+)?(e[-+]?\d+)?$/i;

/** Any sheet shows the text as it is; none runs it. */
export function disarmed(text: string): string {
	if (NUMBER.test(text) || !(FORMULA.test(text) || ODD_START.test(text))) return text;
	return `'${text}`;
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
