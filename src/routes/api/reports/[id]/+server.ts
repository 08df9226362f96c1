import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { ReportDraft } from '$core/report/document';
import { getDb } from '$lib/server/context';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { removeReport, saveDraft } from '$lib/server/reports/commands';
import { reportView } from '$lib/server/reports/view';

const Change = v.object({
	draft: ReportDraft,
	revision: v.pipe(v.number('The revision is a number.'), v.integer('The revision is a whole number.'))
});

export const GET = ({ params }) => answering(() => json(reportView(getDb(), idFrom(params.id, 'report'))));

/** The whole draft, over the revision that was read: 409 when somebody else saved meanwhile. */
export const PATCH = ({ params, request }) =>
	answering(async () => {
		const { draft, revision } = await readJson(request, Change);
		const id = idFrom(params.id, 'report');
		saveDraft(getDb(), id, draft, revision);
		return json(reportView(getDb(), id));
	});

/** With its versions and their links. */
export const DELETE = ({ params }) =>
	answering(() => {
		removeReport(getDb(), idFrom(params.id, 'report'));
		return new Response(null, { status: 204 });
	});
