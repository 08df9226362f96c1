import { json } from '@sveltejs/kit';
import { answering } from '$lib/server/http/api';
import { NotPossible } from '$lib/server/base/refusal';
import { labFiguresOf } from '$lib/server/rooms/loads/pageFigures';

/** What the lab measured of an address, by conditions: middle figures of the loads that count. */
export const GET = ({ locals, url }) =>
	answering(() => {
		const pageUrl = url.searchParams.get('url') ?? '';
		if (!URL.canParse(pageUrl))
			throw new NotPossible(422, 'Name an address that begins with http:// or https://.', 'url');
		return json(labFiguresOf(locals.db, pageUrl));
	});
