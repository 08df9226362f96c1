import { existingClient } from '$lib/server/rooms/clients/clients';
import { idFrom } from '$lib/server/http/api';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { findTrial } from '$lib/server/rooms/trials/trial';
import { timeLeftMs } from '$lib/server/rooms/trials/timeLeft';
import { underWayOf } from '$lib/server/rooms/archive/view';

export const load = ({ locals, params, depends }) =>
	pageOr404(() => {
		depends('zafra:export');
		const db = locals.db;
		const { id, name } = existingClient(db, idFrom(params.id, 'client'));
		const underWay = underWayOf(db, id).map((trial) => {
			const { question, status, progress } = findTrial(db, trial)!;
			const leftMs = status === 'paused' ? null : timeLeftMs(db, { id: trial, progress });
			return { id: trial, question, leftMs };
		});
		return { where: `Clients › ${name} › Export`, client: { id, name }, underWay };
	});
