import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { ReportDraft } from '$core/report/document';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { removeReport, saveDraft } from '$lib/server/rooms/reports/commands';
import { reportView } from '$lib/server/rooms/reports/view';

const Change = v.object({
	draft: ReportDraft,
	revision: v.pipe(v.number('The revision is a number.'), v.integer('The revision is a whole number.'))
});

export const GET = ({ locals, params }) => answering(() => json(reportView(locals.db, idFrom(params.id, 'report'))));

/** The whole draft, over the revision that was read: 409 when somebody else saved meanwhile. */
export const PATCH = ({ locals, params, request }) =>
	answering(async () => {
		const { draft, revision } = await readJson(request, Change);
		const id = idFrom(params.id, 'report');
		saveDraft(locals.db, id, draft, revision);
		return json(reportView(locals.db, id));
	});

/** With its versions and their links. */
export const DELETE = ({ locals, params }) =>
	answering(() => {
		removeReport(locals.db, idFrom(params.id, 'report'));
		return new Response(null, { status: 204 });
	});
