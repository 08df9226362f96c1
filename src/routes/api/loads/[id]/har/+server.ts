import { harOf } from '$core/formats/har';
import { answering } from '$lib/server/http/api';
import { loadFrom } from '$lib/server/rooms/loads/answer';

export const GET = ({ locals, params }) =>
	answering(() => {
		const { load, record } = loadFrom(locals.db, params.id);
		return new Response(JSON.stringify(harOf(record, locals.settings.version), null, '\t'), {
			headers: {
				'content-type': 'application/json',
				'content-disposition': `attachment; filename="zafra-load-${load.id}.har"`
			}
		});
	});
