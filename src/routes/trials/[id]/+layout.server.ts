/** The first screen of the sheet: it stays as it is while parts are opened. */
import { error } from '@sveltejs/kit';
import { sheetHead } from '$lib/server/rooms/trials/sheet/head';
import { sheetMaterial } from '$lib/server/rooms/trials/sheet/material';
import { findTrial } from '$lib/server/rooms/trials/trial';

export const load = async ({ locals, params, url }) => {
	const trial = findTrial(locals.db, Number(params.id));
	if (!trial) error(404, `There is no trial ${params.id}.`);
	const material = await sheetMaterial(locals.db, trial, locals.judgeElsewhere);
	return sheetHead(material, url.searchParams.get('metric') ?? '', Number(url.searchParams.get('against')));
};
