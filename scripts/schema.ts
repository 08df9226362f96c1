/** Writes the JSON Schema of a load record from the types: `npm run schema`. */
import { writeFileSync } from 'node:fs';
import { createGenerator } from 'ts-json-schema-generator';

export const SCHEMA_FILE = 'docs/load-record.schema.json';

export function schemaText(): string {
	const generator = createGenerator({
		path: 'src/core/load/record.ts',
		tsconfig: 'tsconfig.json',
		type: 'LoadRecord',
		topRef: true,
		jsDoc: 'extended',
		skipTypeCheck: true,
		additionalProperties: false
	});
	const schema = { ...generator.createSchema('LoadRecord'), title: 'Zafra load record, version 1' };
	return `${JSON.stringify(schema, null, '\t')}\n`;
}

if (process.argv[1]?.endsWith('schema.ts')) writeFileSync(SCHEMA_FILE, schemaText());
