import { json } from '@sveltejs/kit';
import * as v from 'valibot';
import { DEVICE_CLASSES } from '$core/field/reading';
import { answering, idFrom, readJson } from '$lib/server/http/api';
import { loadNearest } from '$lib/server/rooms/reports/nearest';

const Wish = v.object({
	trial: v.pipe(v.number('The trial is a number.'), v.safeInteger('The trial is a whole number.')),
	device: v.picklist(DEVICE_CLASSES, 'The device is phone or desktop.')
});

/** One load of the page that the trial begins from, on that device: to set beside a figure from elsewhere. */
export const POST = ({ locals, params, request }) =>
	answering(async () => {
		const { trial, device } = await readJson(request, Wish);
		const job = loadNearest(locals.db, idFrom(params.id, 'report'), trial, device);
		return json({ job }, { status: 201 });
	});
