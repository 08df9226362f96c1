import { answering, idFrom } from '$lib/server/http/api';
import { existingFinding } from '$lib/server/rooms/audits/commands';
import { findingMarkdown } from '$lib/server/rooms/audits/csv';
import { worklistRow } from '$lib/server/rooms/audits/worklistView';

/** An issue text in Markdown, to hand over. */
export const GET = ({ locals, params, url }) =>
	answering(() => {
		const row = worklistRow(existingFinding(locals.db, idFrom(params.id, 'finding')));
		return new Response(findingMarkdown(row, url.origin), {
			headers: { 'content-type': 'text/markdown; charset=utf-8' }
		});
	});
