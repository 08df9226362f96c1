import { json } from '@sveltejs/kit';
import { answering, idFrom } from '$lib/server/http/api';
import { withUpload } from '$lib/server/http/upload';
import { gatheringView } from '$lib/server/rooms/pages/view';
import { existingSite } from '$lib/server/rooms/clients/view';

const MOST_NAME = 120;

/** The body is a sitemap: XML or plain text, gzip or not. */
export const POST = ({ locals, params, url, request }) =>
	answering(async () => {
		const { id } = existingSite(locals.db, idFrom(params.id, 'site'));
		const name = (url.searchParams.get('name') ?? 'the file').slice(0, MOST_NAME);
		const read = (file: string) => locals.runHeavy('importSitemap', id, file, name);
		const saved = await withUpload(request, locals.settings.dataFolder, read);
		return json({ ...saved, ...gatheringView(locals.db, id) });
	});
