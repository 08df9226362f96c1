import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from '$lib/server/base/settings';

/** The JSON Schema of `GET /api/loads/:id`, generated from the types. */
export const GET = () =>
	new Response(readFileSync(join(ROOT, 'docs/load-record.schema.json')), {
		headers: { 'content-type': 'application/schema+json' }
	});
