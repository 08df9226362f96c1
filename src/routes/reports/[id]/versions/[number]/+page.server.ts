import type { RequestEvent } from './$types';
import { formAction, textOf } from '$lib/server/http/form';
import { NotPossible } from '$lib/server/base/refusal';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { PAPERS, requestPdf } from '$lib/server/rooms/reports/pdf';
import { existingVersion } from '$lib/server/rooms/reports/queries';
import { createShare, NewShare, revokeShare } from '$lib/server/rooms/reports/shares';
import { versionView } from '$lib/server/rooms/reports/view';
import * as v from 'valibot';
import { wholePage } from '../../../versionPage';

export const load = ({ locals, params }) => {
	const version = pageOr404(() => versionView(locals.db, Number(params.id), Number(params.number)));
	return { where: `Reports › ${version.title} › version ${version.number}`, version };
};

export const actions = {
	share: formAction((form, { locals, params, url }: RequestEvent) => {
		const read = v.safeParse(NewShare, {
			expiresAt: textOf(form, 'expires') || null,
			phrase: textOf(form, 'phrase')
		});
		if (!read.success) throw new NotPossible(422, read.issues[0].message);
		const token = createShare(locals.db, Number(params.id), Number(params.number), read.output);
		return { link: `${url.origin}/r/${token}` };
	}),
	revoke: formAction((form, { locals }) => revokeShare(locals.db, Number(textOf(form, 'id')))),
	pdf: formAction((form, { locals, params }: RequestEvent) => {
		const paper = PAPERS.find((known) => known === textOf(form, 'paper')) ?? 'A4';
		const { id } = existingVersion(locals.db, Number(params.id), Number(params.number));
		requestPdf(locals.db, id, paper, wholePage(locals.db, id, locals.signingKey().publicKey));
	})
};
