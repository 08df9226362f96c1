import { json } from '@sveltejs/kit';
import { TRAFFIC_FIELDS, type TrafficColumns } from '$core/formats/traffic';
import { existingSite } from '$lib/server/clients/sites';
import { getDb, getSettings } from '$lib/server/context';
import { answering, idFrom } from '$lib/server/http/api';
import { NotPossible } from '$lib/server/http/refusal';
import { withUpload } from '$lib/server/http/upload';
import { heavily } from '$lib/server/work/heavy';

/** Places of the columns, from 0, by the names of the fields; null to go by the heading. */
function columnsFrom(query: URLSearchParams): TrafficColumns | null {
	if (!query.has('address')) return null;
	const places = TRAFFIC_FIELDS.map((field) => {
		const text = query.get(field) ?? '';
		if (text !== '' && !/^\d{1,3}$/.test(text))
			throw new NotPossible(422, `“${field}” is the place of a column, from 0.`, field);
		return [field, text === '' ? null : Number(text)];
	});
	return Object.fromEntries(places) as TrafficColumns;
}

/** The body is a table: CSV with comma, semicolon or tab, in UTF-8, UTF-16 or Latin-1. */
export const POST = ({ params, url, request }) =>
	answering(async () => {
		const { id } = existingSite(getDb(), idFrom(params.id, 'site'));
		const columns = columnsFrom(url.searchParams);
		const read = (file: string) => heavily('importTraffic', id, file, columns);
		return json(await withUpload(request, getSettings().dataFolder, read));
	});
