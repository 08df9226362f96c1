import Papa from 'papaparse';
import { answering, idFrom } from '$lib/server/http/api';
import { watchRows } from '$lib/server/rooms/watch/view';

/** One row for each load that counts; of one watched page with `page`. */
export const GET = ({ locals, params, url }) =>
	answering(() => {
		const id = idFrom(params.id, 'watch');
		const page = url.searchParams.get('page');
		const { head, rows } = watchRows(locals.db, id, page === null ? null : idFrom(page, 'page'));
		return new Response(Papa.unparse({ fields: head, data: rows }, { escapeFormulae: true }), {
			headers: {
				'content-type': 'text/csv; charset=utf-8',
				'content-disposition': `attachment; filename="zafra-watch-${id}.csv"`
			}
		});
	});
