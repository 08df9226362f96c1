import { harOf } from '$core/formats/har';
import { answering } from '$lib/server/http/api';
import { loadFrom } from '$lib/server/http/loadAnswer';
import { getDb, getSettings } from '$lib/server/context';

export const GET = ({ params }) =>
	answering(() => {
		const { load, record } = loadFrom(getDb(), params.id);
		return new Response(JSON.stringify(harOf(record, getSettings().version), null, '\t'), {
			headers: {
				'content-type': 'application/json',
				'content-disposition': `attachment; filename="zafra-load-${load.id}.har"`
			}
		});
	});
