/** A chart's values as CSV: the writer comes only when somebody asks for it. */
import type { Cell } from '$core/formats/csv';

export async function csvText(head: readonly string[], rows: readonly (readonly Cell[])[]): Promise<string> {
	const { csvOf } = await import('$core/formats/csv');
	return csvOf(head, rows);
}
