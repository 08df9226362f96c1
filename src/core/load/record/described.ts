/** Fields that say what they are: in code, and in the published JSON Schema. */
import * as v from 'valibot';

export function about<Schema extends v.GenericSchema>(words: string, schema: Schema) {
	return v.pipe(schema, v.description(words));
}
