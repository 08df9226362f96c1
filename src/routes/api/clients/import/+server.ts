import { json } from '@sveltejs/kit';
import { getSettings } from '$lib/server/context';
import { answering } from '$lib/server/http/api';
import { withUpload } from '$lib/server/http/upload';
import { heavily } from '$lib/server/work/heavy';

/** The body is a zip that `GET /api/clients/:id/export` gave. */
export const POST = ({ request }) =>
	answering(async () => {
		const { id, left } = await withUpload(request, getSettings().dataFolder, (file) =>
			heavily('importClientFile', file)
		);
		return json({ id, left }, { status: 201, headers: { location: `/api/clients/${id}` } });
	});
