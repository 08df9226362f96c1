import { getDb, getSigningKey } from '$lib/server/context';
import { countView } from '$lib/server/reports/shares';
import { readForm, textOf } from '$lib/server/http/form';
import { NotPossible } from '$lib/server/http/refusal';
import { linkedPage } from '../../reports/versionPage';
import { enter, htmlAnswer, tryPhrase } from '../door';

/** A frozen report, for whoever has its link. */
export const GET = ({ params, cookies, getClientAddress }) => {
	const entry = enter(params.token, getClientAddress(), cookies);
	if ('answer' in entry) return entry.answer;
	countView(getDb(), entry.open.id);
	return htmlAnswer(
		linkedPage(getDb(), entry.open.versionId, `/r/${params.token}/pictures`, getSigningKey().publicKey)
	);
};

export const POST = async ({ params, request, cookies, getClientAddress, url }) => {
	const form = await readForm(request).catch(refusedBody);
	if (form instanceof Response) return form;
	return tryPhrase(params.token, textOf(form, 'phrase'), getClientAddress(), cookies, url.pathname);
};

function refusedBody(error: unknown): Response {
	if (error instanceof NotPossible) return new Response(error.message, { status: error.status });
	throw error;
}
