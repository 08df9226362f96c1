import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { PAPERS, pdfState, requestPdf } from '$lib/server/rooms/reports/pdf';
import { wholePage } from '../../../../../../reports/versionPage';
import { existingVersion } from '$lib/server/rooms/reports/view';

const Order = v.object({ paper: v.optional(v.picklist(PAPERS, 'The paper is “A4” or “Letter”.'), 'A4') });

/** How the PDFs of a version stand. */
export const GET = ({ locals, params }) =>
	answering(() => {
		const { id } = existingVersion(locals.db, idFrom(params.id, 'report'), idFrom(params.number, 'version'));
		return json({ pdfs: PAPERS.map((paper) => ({ paper, ...pdfState(locals.db, id, paper) })) });
	});

/** Have it printed by the lab, between two loads. */
export const POST = ({ locals, params, request }) =>
	answering(async () => {
		const { paper } = await readJson(request, Order, { optional: true });
		const { id } = existingVersion(locals.db, idFrom(params.id, 'report'), idFrom(params.number, 'version'));
		requestPdf(locals.db, id, paper, wholePage(locals.db, id, locals.signingKey().publicKey));
		return json({ paper, ...pdfState(locals.db, id, paper) }, { status: 202 });
	});
