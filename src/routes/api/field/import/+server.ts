import { json } from '@sveltejs/kit';
import { READING_FIELDS, type ReadingColumns } from '$core/field/csvReadings';
import { existingClient } from '$lib/server/clients/clients';
import { getDb, getSettings } from '$lib/server/context';
import { answering, idFrom } from '$lib/server/http/api';
import { columnsFrom, headerFrom } from '$lib/server/http/columns';
import { withUpload } from '$lib/server/http/upload';
import { heavily } from '$lib/server/work/heavy';

/** The body is a table of readings; `?client=ID` names whose, further fields the places of its columns. */
export const POST = ({ url, request }) =>
	answering(async () => {
		const { id } = existingClient(getDb(), idFrom(url.searchParams.get('client') ?? '', 'client'));
		const columns = columnsFrom(url.searchParams, READING_FIELDS) as ReadingColumns | null;
		const header = headerFrom(url.searchParams);
		const read = (file: string) => heavily('importReadings', id, file, columns, header);
		return json(await withUpload(request, getSettings().dataFolder, read));
	});
