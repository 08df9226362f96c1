import { getDb } from '$lib/server/context';
import { countView } from '$lib/server/reports/shares';
import { textOf } from '$lib/server/http/form';
import { linkedPage } from '../../reports/versionPage';
import { enter, htmlAnswer, tryPhrase } from '../door';

/** A frozen report, for whoever has its link. */
export const GET = ({ params, cookies, getClientAddress }) => {
	const entry = enter(params.token, getClientAddress(), cookies);
	if ('answer' in entry) return entry.answer;
	countView(getDb(), entry.open.id);
	return htmlAnswer(linkedPage(getDb(), entry.open.versionId, `/r/${params.token}/pictures`));
};

export const POST = async ({ params, request, cookies, getClientAddress, url }) => {
	const phrase = textOf(await request.formData(), 'phrase');
	return tryPhrase(params.token, phrase, getClientAddress(), cookies, url.pathname);
};
