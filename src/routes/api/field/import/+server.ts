import { json } from '@sveltejs/kit';
import { READING_FIELDS, type ReadingColumns } from '$core/field/csvReadings';
import { existingClient } from '$lib/server/rooms/clients/clients';
import { answering, idFrom } from '$lib/server/http/api';
import { columnsFrom, headerFrom } from '$lib/server/http/columns';
import { withUpload } from '$lib/server/http/upload';

/** The body is a table of readings; `?client=ID` names whose, further fields the places of its columns. */
export const POST = ({ locals, url, request }) =>
	answering(async () => {
		const { id } = existingClient(locals.db, idFrom(url.searchParams.get('client') ?? '', 'client'));
		const columns = columnsFrom(url.searchParams, READING_FIELDS) as ReadingColumns | null;
		const header = headerFrom(url.searchParams);
		const read = (file: string) => locals.runHeavy('importReadings', id, file, columns, header);
		return json(await withUpload(request, locals.settings.dataFolder, read));
	});
