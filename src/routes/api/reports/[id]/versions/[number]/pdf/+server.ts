import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { getDb, getSigningKey } from '$lib/server/context';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { PAPERS, pdfState, requestPdf } from '$lib/server/reports/pdf';
import { existingVersion } from '$lib/server/reports/queries';
import { wholePage } from '../../../../../../reports/versionPage';

const Order = v.object({ paper: v.optional(v.picklist(PAPERS, 'The paper is “A4” or “Letter”.'), 'A4') });

/** How the PDFs of a version stand. */
export const GET = ({ params }) =>
	answering(() => {
		const { id } = existingVersion(getDb(), idFrom(params.id, 'report'), idFrom(params.number, 'version'));
		return json({ pdfs: PAPERS.map((paper) => ({ paper, ...pdfState(getDb(), id, paper) })) });
	});

/** Have it printed by the lab, between two loads. */
export const POST = ({ params, request }) =>
	answering(async () => {
		const { paper } = await readJson(request, Order, { optional: true });
		const { id } = existingVersion(getDb(), idFrom(params.id, 'report'), idFrom(params.number, 'version'));
		requestPdf(getDb(), id, paper, wholePage(getDb(), id, getSigningKey().publicKey));
		return json({ paper, ...pdfState(getDb(), id, paper) }, { status: 202 });
	});
