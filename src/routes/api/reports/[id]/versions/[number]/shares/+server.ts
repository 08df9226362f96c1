import { json } from '@sveltejs/kit';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { existingVersion, createShare, listShares, NewShare } from '$lib/server/rooms/reports/view';

export const GET = ({ locals, params }) =>
	answering(() => {
		const version = existingVersion(locals.db, idFrom(params.id, 'report'), idFrom(params.number, 'version'));
		return json({ shares: listShares(locals.db, version.id) });
	});

/** The answer holds the link: it is not shown again. */
export const POST = ({ locals, params, request, url }) =>
	answering(async () => {
		const share = await readJson(request, NewShare, { optional: true });
		const token = createShare(locals.db, idFrom(params.id, 'report'), idFrom(params.number, 'version'), share);
		return json({ url: `${url.origin}/r/${token}` }, { status: 201 });
	});
