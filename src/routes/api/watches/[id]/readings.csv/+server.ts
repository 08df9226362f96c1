import Papa from 'papaparse';
import { getDb } from '$lib/server/context';
import { answering, idFrom } from '$lib/server/http/api';
import { watchRows } from '$lib/server/watch/view';

/** One row for each load that counts; of one watched page with `page`. */
export const GET = ({ params, url }) =>
	answering(() => {
		const id = idFrom(params.id, 'watch');
		const page = url.searchParams.get('page');
		const { head, rows } = watchRows(getDb(), id, page === null ? null : idFrom(page, 'page'));
		return new Response(Papa.unparse({ fields: head, data: rows }, { escapeFormulae: true }), {
			headers: {
				'content-type': 'text/csv; charset=utf-8',
				'content-disposition': `attachment; filename="zafra-watch-${id}.csv"`
			}
		});
	});
