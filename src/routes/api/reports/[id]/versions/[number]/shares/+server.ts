import { json } from '@sveltejs/kit';
import { getDb } from '$lib/server/context';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { existingVersion } from '$lib/server/reports/queries';
import { createShare, listShares, NewShare } from '$lib/server/reports/shares';

export const GET = ({ params }) =>
	answering(() => {
		const version = existingVersion(getDb(), idFrom(params.id, 'report'), idFrom(params.number, 'version'));
		return json({ shares: listShares(getDb(), version.id) });
	});

/** The answer holds the link: it is not shown again. */
export const POST = ({ params, request, url }) =>
	answering(async () => {
		const asked = await readJson(request, NewShare, { optional: true });
		const token = createShare(getDb(), idFrom(params.id, 'report'), idFrom(params.number, 'version'), asked);
		return json({ url: `${url.origin}/r/${token}` }, { status: 201 });
	});
