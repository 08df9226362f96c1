/** Margins as rows of a form, and back. */

export interface MarginRow {
	metric: string;
	/** In the metric's unit. */
	absolute: number | null;
	percent: number | null;
}

type Margins = Record<string, { absolute: number; relative: number }>;

export function marginRowsOf(json: string): MarginRow[] {
	return Object.entries(JSON.parse(json || '{}') as Margins).map(([metric, { absolute, relative }]) => ({
		metric,
		absolute,
		percent: Math.round(relative * 10_000) / 100
	}));
}

/** JSON by metric; an empty field asks for nothing. */
export function marginsOf(rows: readonly MarginRow[]): string {
	const entries = rows.map(({ metric, absolute, percent }) => [
		metric,
		{ absolute: absolute ?? 0, relative: (percent ?? 0) / 100 }
	]);
	return JSON.stringify(Object.fromEntries(entries));
}
