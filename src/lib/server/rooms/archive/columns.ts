/** What columns of an archive hold: the small schemas that its rows are made of. */
import * as v from 'valibot';
import { isMetricId } from '$core/metrics/catalogue';

export const number = v.pipe(v.number('This is no number.'), v.finite('This is no number.'));
export const amount = v.pipe(number, v.minValue(0, 'This is negative.'));
export const whole = v.pipe(
	v.number('This is no whole number.'),
	v.safeInteger('This is no whole number.'),
	v.minValue(0, 'This is negative.')
);
export const id = v.pipe(whole, v.minValue(1, 'This is no number of a row.'));
export const share = v.pipe(amount, v.maxValue(1, 'A share is at most 1.'));
export const flag = v.picklist([0, 1], 'This is 0 or 1.');
export const text = (most: number) =>
	v.pipe(v.string('This is no text.'), v.maxLength(most, `This has over ${most} characters.`));
export const named = (most: number) => v.pipe(text(most), v.nonEmpty('This is empty.'));
export const time = v.pipe(
	text(40),
	v.regex(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2}(\.\d+)?)?(Z|[+-]\d{2}:\d{2})$/, 'This is no time.'),
	v.check((written) => !Number.isNaN(Date.parse(written)), 'This is no time.')
);
export const day = v.pipe(
	text(10),
	v.regex(/^\d{4}-\d{2}-\d{2}$/, 'This is no day.'),
	v.check((written) => !Number.isNaN(Date.parse(written)), 'This is no day.')
);
export const hash = v.pipe(v.string('This is no text.'), v.regex(/^[0-9a-f]{64}$/, 'This is no SHA-256.'));
export const metric = v.pipe(v.string('This is no text.'), v.check(isMetricId, 'There is no such metric.'));
export const host = v.pipe(text(260), v.regex(/^[^\s/?#@\\]*$/, 'This is no host.'));
export const maybe = <Schema extends v.GenericSchema>(schema: Schema) => v.optional(v.nullable(schema), null);
export const list = <Schema extends v.GenericSchema>(schema: Schema, most: number) =>
	v.pipe(v.array(schema, 'This is no list.'), v.maxLength(most, `This has over ${most} entries.`));

/** Text of JSON that holds what a schema takes: as the schema reads it, with what is left out there filled in. */
export function json<Schema extends v.GenericSchema>(schema: Schema, most = 1_000_000) {
	return v.pipe(
		text(most),
		v.rawTransform(({ dataset, addIssue, NEVER }) => {
			const read = readJson(dataset.value, schema);
			if ('text' in read) return read.text;
			addIssue({ message: read.problem });
			return NEVER;
		})
	);
}

function readJson(written: string, schema: v.GenericSchema): { text: string } | { problem: string } {
	let value: unknown;
	try {
		value = JSON.parse(written);
	} catch {
		return { problem: 'This is no JSON.' };
	}
	const read = v.safeParse(schema, value);
	if (read.success) return { text: JSON.stringify(read.output) };
	const [issue] = read.issues;
	return { problem: `${v.getDotPath(issue) ?? 'its top'}: ${issue.message}` };
}

/** A row whose columns together are what a door of the app takes. */
export function together(
	columns: v.ObjectEntries,
	schema: v.GenericSchema,
	asInput: (row: never) => unknown
): RowSchema {
	const row = v.pipe(
		v.object(columns),
		v.rawCheck(({ dataset, addIssue }) => {
			if (!dataset.typed || dataset.issues) return;
			const read = v.safeParse(schema, asInput(dataset.value as never));
			if (read.success) return;
			const [issue] = read.issues;
			addIssue({ message: `${v.getDotPath(issue) ?? 'the row'}: ${issue.message}` });
		})
	);
	return row as unknown as RowSchema;
}

export const conditionId = named(60);
export const conditionIndex = v.pipe(whole, v.maxValue(100));
export const roundNumber = v.pipe(whole, v.maxValue(100_000));

/** What the rows of one table may hold. */
export type RowSchema = v.GenericSchema<unknown, Record<string, string | number | null>>;
