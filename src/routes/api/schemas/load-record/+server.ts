import schema from '../../../../../docs/load-record.schema.json?raw';

/** The JSON Schema of `GET /api/loads/:id`, generated from the types. */
export const GET = () => new Response(schema, { headers: { 'content-type': 'application/schema+json' } });
