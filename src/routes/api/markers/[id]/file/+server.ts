import { answering, idFrom } from '$lib/server/http/api';
import { fileOfMarker } from '$lib/server/rooms/field/view';

/** The settings that were kept with a marker, as a file. */
export const GET = ({ locals, params }) =>
	answering(() => {
		const { name, text } = fileOfMarker(locals.db, idFrom(params.id, 'marker'));
		return new Response(text, {
			headers: {
				'content-type': 'text/plain; charset=utf-8',
				'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`
			}
		});
	});
