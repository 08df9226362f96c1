import { json } from '@sveltejs/kit';
import { getDb } from '$lib/server/context';
import { answering, idFrom } from '$lib/server/http/api';
import { versionView } from '$lib/server/reports/view';

export const GET = ({ params }) =>
	answering(() => json(versionView(getDb(), idFrom(params.id, 'report'), idFrom(params.number, 'version'))));
