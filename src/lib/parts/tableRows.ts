/** Columns, order and pages of a table: pure. */

export interface Column<Row> {
	key: string;
	name: string;
	/** Figures stand right, in tabular digits. */
	number?: boolean;
	/** Names the row for screen readers. */
	isRowHead?: boolean;
	/** The head is read, not seen. */
	isUnnamed?: boolean;
	/** What the cell says; without it the table's snippet draws the cell. */
	text?: (row: Row) => string | number;
	/** What rows are sorted by; without it the head does not sort. */
	sort?: (row: Row) => string | number | null;
	/** A class of the theme: `address`, `file`, `muted`. */
	kind?: string;
}

/** Rows in the asked order, stable; what is not known comes last either way. */
export function sortedRows<Row>(
	rows: readonly Row[],
	columns: readonly Column<Row>[],
	sorted: { key: string; ascending: boolean } | null
): readonly Row[] {
	const value = columns.find(({ key }) => key === sorted?.key)?.sort;
	if (!sorted || !value) return rows;
	const turn = sorted.ascending ? 1 : -1;
	return [...rows].sort((a, b) => {
		const [left, right] = [value(a), value(b)];
		if (left === null || right === null) return Number(left === null) - Number(right === null);
		if (typeof left === 'string' && typeof right === 'string') return turn * left.localeCompare(right, 'en-GB');
		return turn * (Number(left) - Number(right));
	});
}

/** @param page from 1; one beyond the last shows the last */
export function pageOf<Row>(rows: readonly Row[], page: number, pageSize: number): readonly Row[] {
	const last = Math.max(1, Math.ceil(rows.length / pageSize));
	const from = (Math.min(page, last) - 1) * pageSize;
	return rows.slice(from, from + pageSize);
}
