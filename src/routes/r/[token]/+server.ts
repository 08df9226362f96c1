import { readForm } from '$lib/server/http/form';
import { NotPossible } from '$lib/server/base/refusal';
import { linkedPage } from '../../reports/versionPage';
import { enter, htmlAnswer, tryPhrase } from '../door';
import { countView } from '$lib/server/rooms/reports/view';

/** A frozen report, for whoever has its link. */
export const GET = (event) => {
	const { locals, params } = event;
	const entry = enter(event);
	if ('answer' in entry) return entry.answer;
	countView(locals.db, entry.open.id);
	return htmlAnswer(
		linkedPage(locals.db, entry.open.versionId, `/r/${params.token}/pictures`, locals.signingKey().publicKey)
	);
};

export const POST = async (event) => {
	const form = await readForm(event.request).catch(refusedBody);
	if (form instanceof Response) return form;
	return tryPhrase(event, String(form.get('phrase') ?? ''), event.url.pathname);
};

function refusedBody(error: unknown): Response {
	if (error instanceof NotPossible) return new Response(error.message, { status: error.status });
	throw error;
}
