import { getDb } from '$lib/server/context';
import { fileOfMarker } from '$lib/server/field/markers';
import { answering, idFrom } from '$lib/server/http/api';

/** The settings that were kept with a marker, as a file. */
export const GET = ({ params }) =>
	answering(() => {
		const { name, text } = fileOfMarker(getDb(), idFrom(params.id, 'marker'));
		return new Response(text, {
			headers: {
				'content-type': 'text/plain; charset=utf-8',
				'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`
			}
		});
	});
