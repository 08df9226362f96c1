import type { RequestEvent } from './$types';
import { getDb, getSigningKey } from '$lib/server/context';
import { formAction, textOf } from '$lib/server/http/form';
import { NotPossible } from '$lib/server/http/refusal';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { PAPERS, requestPdf } from '$lib/server/reports/pdf';
import { existingVersion } from '$lib/server/reports/queries';
import { createShare, NewShare, revokeShare } from '$lib/server/reports/shares';
import { versionView } from '$lib/server/reports/view';
import * as v from 'valibot';
import { wholePage } from '../../../versionPage';

export const load = ({ params }) => {
	const version = pageOr404(() => versionView(getDb(), Number(params.id), Number(params.number)));
	return { where: `Reports › ${version.title} › version ${version.number}`, version };
};

export const actions = {
	share: formAction((form, { params, url }: RequestEvent) => {
		const read = v.safeParse(NewShare, {
			expiresAt: textOf(form, 'expires') || null,
			phrase: textOf(form, 'phrase')
		});
		if (!read.success) throw new NotPossible(422, read.issues[0].message);
		const token = createShare(getDb(), Number(params.id), Number(params.number), read.output);
		return { link: `${url.origin}/r/${token}` };
	}),
	revoke: formAction((form) => revokeShare(getDb(), Number(textOf(form, 'id')))),
	pdf: formAction((form, { params }: RequestEvent) => {
		const paper = PAPERS.find((known) => known === textOf(form, 'paper')) ?? 'A4';
		const { id } = existingVersion(getDb(), Number(params.id), Number(params.number));
		requestPdf(getDb(), id, paper, wholePage(getDb(), id, getSigningKey().publicKey));
	})
};
