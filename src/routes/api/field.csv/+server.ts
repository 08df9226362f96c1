import { FIELD_METRICS } from '$core/field/histogram';
import { csvOf } from '$core/formats/csv';
import { answering, idFrom } from '$lib/server/http/api';
import { csvAnswer } from '$lib/server/http/csv';
import { existingClient } from '$lib/server/rooms/clients/clients';
import { fieldRows } from '$lib/server/rooms/field/view';

const HEAD = [
	'page',
	'type',
	'device',
	'scope',
	'until',
	'result',
	'misses',
	...FIELD_METRICS.map((id) => `${id}_p75`)
];

/** The newest window of each chosen page of `?client=ID` and device, each with its scope. */
export const GET = ({ locals, url }) =>
	answering(() => {
		const { id } = existingClient(locals.db, idFrom(url.searchParams.get('client') ?? '', 'client'));
		const rows = fieldRows(locals.db, id).map((row) => [
			row.url,
			row.type,
			row.device,
			row.scope,
			row.until,
			row.assessment,
			row.failing.join(' '),
			...FIELD_METRICS.map((metric) => row.metrics?.[metric]?.p75 ?? null)
		]);
		return csvAnswer('field.csv', csvOf(HEAD, rows));
	});
