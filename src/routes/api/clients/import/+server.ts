import { json } from '@sveltejs/kit';
import { readFile } from 'node:fs/promises';
import { importClient } from '$lib/server/clients/archive';
import { sitesOf } from '$lib/server/clients/sites';
import { getDb, getSettings } from '$lib/server/context';
import { answering } from '$lib/server/http/api';
import { withUpload } from '$lib/server/http/upload';
import { saveProposals } from '$lib/server/pages/gathering';

/** The body is a zip that `GET /api/clients/:id/export` gave. */
export const POST = ({ request }) =>
	answering(() =>
		withUpload(request, getSettings().dataFolder, async (file) => {
			const id = await importClient(getDb(), await readFile(file));
			for (const site of sitesOf(getDb(), id)) saveProposals(getDb(), site.id);
			return json({ id }, { status: 201, headers: { location: `/api/clients/${id}` } });
		})
	);
