import { json } from '@sveltejs/kit';
import { TRAFFIC_FIELDS, type TrafficColumns } from '$core/pages/traffic';
import { answering, idFrom } from '$lib/server/http/api';
import { columnsFrom, headerFrom } from '$lib/server/http/columns';
import { withUpload } from '$lib/server/http/upload';
import { existingSite } from '$lib/server/rooms/clients/view';

/** The body is a table: CSV with comma, semicolon or tab, in UTF-8, UTF-16 or Latin-1. */
export const POST = ({ locals, params, url, request }) =>
	answering(async () => {
		const { id } = existingSite(locals.db, idFrom(params.id, 'site'));
		const columns = columnsFrom(url.searchParams, TRAFFIC_FIELDS) as TrafficColumns | null;
		const header = headerFrom(url.searchParams);
		const read = (file: string) => locals.runHeavy('importTraffic', id, file, columns, header);
		return json(await withUpload(request, locals.settings.dataFolder, read));
	});
