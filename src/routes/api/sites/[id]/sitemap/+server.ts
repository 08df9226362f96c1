import { json } from '@sveltejs/kit';
import { existingSite } from '$lib/server/clients/sites';
import { getDb, getSettings } from '$lib/server/context';
import { answering, idFrom } from '$lib/server/http/api';
import { withUpload } from '$lib/server/http/upload';
import { gatheringView } from '$lib/server/pages/view';
import { heavily } from '$lib/server/work/heavy';

const MOST_NAME = 120;

/** The body is a sitemap: XML or plain text, gzip or not. */
export const POST = ({ params, url, request }) =>
	answering(async () => {
		const { id } = existingSite(getDb(), idFrom(params.id, 'site'));
		const name = (url.searchParams.get('name') ?? 'the file').slice(0, MOST_NAME);
		const read = (file: string) => heavily('importSitemap', id, file, name);
		const saved = await withUpload(request, getSettings().dataFolder, read);
		return json({ ...saved, ...gatheringView(getDb(), id) });
	});
