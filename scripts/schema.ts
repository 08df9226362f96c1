/** Writes the JSON Schema of a load record from its Valibot schema: `npm run schema`. */
import { writeFileSync } from 'node:fs';
import { toJsonSchema } from '@valibot/to-json-schema';
import { LoadRecord } from '$core/load/record/record';

export const SCHEMA_FILE = 'docs/load-record.schema.json';

export function schemaText(): string {
	const schema = toJsonSchema(LoadRecord, {
		target: 'draft-07',
		// The one custom type: the phase of a step.
		overrideSchema: ({ valibotSchema }) =>
			valibotSchema.type === 'custom' ? { type: 'string', pattern: '^step \\d+$' } : undefined
	});
	return `${JSON.stringify({ ...schema, title: 'Zafra load record, version 1' }, null, '\t')}\n`;
}

if (process.argv[1]?.endsWith('schema.ts')) writeFileSync(SCHEMA_FILE, schemaText());
