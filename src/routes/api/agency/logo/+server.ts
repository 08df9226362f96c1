import { deleteLogo, saveLogo } from '$lib/server/rooms/reports/agency';
import { answering } from '$lib/server/http/api';

/** The body is a picture. */
export const PUT = ({ locals, request }) =>
	answering(async () => {
		await saveLogo(locals.db, new Uint8Array(await request.arrayBuffer()));
		return new Response(null, { status: 204 });
	});

export const DELETE = ({ locals }) =>
	answering(() => {
		deleteLogo(locals.db);
		return new Response(null, { status: 204 });
	});
