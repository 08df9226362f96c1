import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { versionView } from '$lib/server/rooms/reports/view';

export const GET = ({ locals, params }) =>
	answering(() => json(versionView(locals.db, idFrom(params.id, 'report'), idFrom(params.number, 'version'))));
