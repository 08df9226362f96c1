/** Archives that an earlier Zafra wrote, in the shape of today. */
import type { Tables } from './secrets';
import type { ArchiveRow } from './tables';

/** A subject was one text, `arm:7`; the load whose page was asked again stood in the order of its job. */
export function withSubjects(tables: Tables): Tables {
	const { job, artifact_use: uses } = tables;
	return {
		...tables,
		...(job && { job: job.map((row) => withLoad(split(row, 'subject'))) }),
		...(uses && { artifact_use: uses.map((row) => split(row, 'owner')) })
	};
}

function split(row: ArchiveRow, column: 'subject' | 'owner'): ArchiveRow {
	if (!(column in row)) return row;
	const { [column]: text, ...rest } = row;
	const [kind = '', id = '0'] = String(text).split(':');
	return { ...rest, [`${column}_kind`]: kind, [`${column}_id`]: Number(id) };
}

function withLoad(row: ArchiveRow): ArchiveRow {
	if ('of_load' in row || typeof row.order !== 'string') return row;
	try {
		const { of, ...order } = JSON.parse(row.order) as { of?: unknown };
		return of === undefined ? row : { ...row, order: JSON.stringify(order), of_load: of as ArchiveRow[string] };
	} catch {
		// What cannot be read is told by the check of its row.
		return row;
	}
}
