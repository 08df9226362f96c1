import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { DEVICE_CLASSES } from '$core/field/reading';
import { answering, idFrom } from '$lib/server/http/api';
import { NotPossible } from '$lib/server/base/refusal';

/** What each release did to the visitors of a page on `?device=phone`. */
export const GET = ({ locals, params, url }) =>
	answering(async () => {
		const device = url.searchParams.get('device') ?? 'phone';
		if (!v.is(v.picklist(DEVICE_CLASSES), device))
			throw new NotPossible(400, 'The device is “phone” or “desktop”.', 'device');
		return json(await locals.runHeavy('effectsOfPage', idFrom(params.page, 'page'), device));
	});
