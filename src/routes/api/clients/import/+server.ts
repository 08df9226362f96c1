import { json } from '@sveltejs/kit';
import { answering } from '$lib/server/http/api';
import { withUpload } from '$lib/server/http/upload';

/** The body is a zip that `GET /api/clients/:id/export` gave. */
export const POST = ({ locals, request }) =>
	answering(async () => {
		const { id, left } = await withUpload(request, locals.settings.dataFolder, (file) =>
			locals.runHeavy('importClientFile', file)
		);
		return json({ id, left }, { status: 201, headers: { location: `/api/clients/${id}` } });
	});
