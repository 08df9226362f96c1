import * as v from 'valibot';
import type { RequestEvent } from './$types';
import { parsed } from '$lib/server/base/parse';
import { ROW, Text } from '$lib/server/http/fields';
import { formAction } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { PAPERS, requestPdf } from '$lib/server/rooms/reports/pdf';
import { wholePage } from '../../../versionPage';
import { versionView, existingVersion, createShare, NewShare, revokeShare } from '$lib/server/rooms/reports/view';

export const load = ({ locals, params }) => {
	const version = pageOr404(() => versionView(locals.db, Number(params.id), Number(params.number)));
	return { where: `Reports › ${version.title} › version ${version.number}`, version };
};

export const actions = {
	share: formAction(
		v.object({ expires: Text, phrase: Text }),
		({ expires, phrase }, { locals, params, url }: RequestEvent) => {
			const share = parsed(NewShare, { expiresAt: expires || null, phrase });
			return { link: `${url.origin}/r/${createShare(locals.db, Number(params.id), Number(params.number), share)}` };
		}
	),
	revoke: formAction(ROW, ({ id }, { locals }: RequestEvent) => revokeShare(locals.db, Number(id))),
	pdf: formAction(v.object({ paper: Text }), ({ paper: wanted }, { locals, params }: RequestEvent) => {
		const paper = PAPERS.find((own) => own === wanted) ?? 'A4';
		const { id } = existingVersion(locals.db, Number(params.id), Number(params.number));
		requestPdf(locals.db, id, paper, wholePage(locals.db, id, locals.signingKey().publicKey));
	})
};
