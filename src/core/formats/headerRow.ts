/** Where the heading of a table stands: programs write their name, a period and notes above it. */

/** Lines among which it is sought. */
export const LOOKED_AT_ROWS = 20;

/**
 * @param rows the first lines that are not empty
 * @param isHeading whether a line's cells are names of columns that are wanted
 * @returns its place from 0; null where none looks like one
 */
export function headerRowOf(
	rows: readonly (readonly string[])[],
	isHeading: (cells: readonly string[]) => boolean
): number | null {
	const at = rows.slice(0, LOOKED_AT_ROWS).findIndex((cells) => cells.length > 1 && isHeading(cells));
	return at < 0 ? null : at;
}
