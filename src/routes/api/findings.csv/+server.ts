import { answering } from '$lib/server/http/api';
import { csvAnswer } from '$lib/server/http/csv';
import { worklistCsv } from '$lib/server/rooms/audits/csv';
import { worklistFilterOf } from '$lib/server/rooms/audits/filter';

export const GET = ({ locals, url }) =>
	answering(() => csvAnswer('worklist.csv', worklistCsv(locals.db, worklistFilterOf(url.searchParams).filter)));
