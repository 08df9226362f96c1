import { json } from '@sveltejs/kit';
import { TRAFFIC_FIELDS, type TrafficColumns } from '$core/formats/traffic';
import { existingSite } from '$lib/server/clients/sites';
import { getDb, getSettings } from '$lib/server/context';
import { answering, idFrom } from '$lib/server/http/api';
import { columnsFrom, headerFrom } from '$lib/server/http/columns';
import { withUpload } from '$lib/server/http/upload';
import { heavily } from '$lib/server/work/heavy';

/** The body is a table: CSV with comma, semicolon or tab, in UTF-8, UTF-16 or Latin-1. */
export const POST = ({ params, url, request }) =>
	answering(async () => {
		const { id } = existingSite(getDb(), idFrom(params.id, 'site'));
		const columns = columnsFrom(url.searchParams, TRAFFIC_FIELDS) as TrafficColumns | null;
		const header = headerFrom(url.searchParams);
		const read = (file: string) => heavily('importTraffic', id, file, columns, header);
		return json(await withUpload(request, getSettings().dataFolder, read));
	});
