/** The first screen of the sheet: it stays as it is while parts are opened. */
import { error } from '@sveltejs/kit';
import { fieldOfAddress } from '$lib/server/rooms/field/view';
import { isLargeRecord } from '$lib/server/rooms/loads/loads';
import { loadHead } from '$lib/server/rooms/loads/view';
import { findTrial } from '$lib/server/rooms/trials/trial';

export const load = async ({ locals: { db, runHeavy }, params }) => {
	const id = Number(params.id);
	const head = isLargeRecord(db, id)
		? await runHeavy('loadHead', id)
		: loadHead(db, id, (trialId) => findTrial(db, trialId));
	if (!head) error(404, `There is no load ${params.id}.`);
	return { ...head, field: fieldOfAddress(db, head.record.url) };
};
