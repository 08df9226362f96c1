/** The door for records that come from files: of today's version or an earlier one. */
import * as v from 'valibot';
import { completeRecord } from './emptyRecord';
import { LoadRecord } from './record';

/** @throws Error that names the field that cannot be read */
export function parseRecord(value: unknown): LoadRecord {
	if (typeof value !== 'object' || value === null) throw new Error('This is not a load record: it is no object.');
	const result = v.safeParse(LoadRecord, completeRecord(value as Parameters<typeof completeRecord>[0]));
	if (result.success) return result.output;
	const [issue] = result.issues;
	throw new Error(`This is not a load record: at ${v.getDotPath(issue) ?? 'its top'}: ${issue.message}`);
}
