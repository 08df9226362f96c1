import { csvOf } from '$core/formats/csv';
import { answering, idFrom } from '$lib/server/http/api';
import { csvAnswer } from '$lib/server/http/csv';
import { existingSite } from '$lib/server/rooms/clients/view';
import { listPages } from '$lib/server/rooms/pages/view';

/** All pages that a site may keep. */
const MOST = 50_000;
const HEAD = ['page', 'type', 'visits', 'share', 'conversions', 'revenue', 'changed', 'source', 'in_sample'];

/** All pages of `?site=ID`. */
export const GET = ({ locals, url }) =>
	answering(() => {
		const { id, host } = existingSite(locals.db, idFrom(url.searchParams.get('site') ?? '', 'site'));
		const rows = listPages(locals.db, { siteId: id }, MOST).map((page) => [
			page.url,
			page.type,
			page.visits,
			page.share,
			page.conversions,
			page.revenue,
			page.lastmod,
			page.source,
			page.isChosen
		]);
		return csvAnswer(`pages-${host}.csv`, csvOf(HEAD, rows));
	});
