import { redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import { describeConditions } from '$core/load/conditions/conditions';
import { parseSteps } from '$core/load/journey/steps';
import { parsed, readAt } from '$lib/server/base/parse';
import { idFrom } from '$lib/server/http/api';
import { ROW } from '$lib/server/http/fields';
import { formAction, formOf } from '$lib/server/http/form';
import type { Db } from '$lib/server/base/db/connection';
import { HarFields, LoadFields } from '$lib/server/rooms/loads/form';
import { noteLandings } from '$lib/server/rooms/loads/landings';
import { findRequest, openRequests } from '$lib/server/rooms/loads/requested';
import { deleteLoad, requestLoad, LoadRequest } from '$lib/server/rooms/loads/commands';
import { dropRequest } from '$lib/server/rooms/trials/progress';
import { NotPossible } from '$lib/server/base/refusal';
import { listConditions } from '$lib/server/rooms/conditions/view';
import { visitorStates } from '$lib/server/rooms/clients/view';
import { countLoneLoads, loneLoads, type LoneFilter } from '$lib/server/rooms/loads/view';

const STATUSES = ['', 'ok', 'failed'] as const;
/** Both of what a visitor may hold. */
const BOTH = 'both';
const DEVICES = ['phone', 'desktop'] as const;
/** Rows of a page of the list. */
const ROWS = 25;

export const load = async ({ locals, parent, url }) => {
	const { clientId } = await parent();
	const db = locals.db;
	const awaited = findRequest(db, Number(url.searchParams.get('waiting')) || 0);
	if (awaited?.loadId)
		redirect(
			303,
			`/loads/${awaited.loadId}${awaited.patience || awaited.conditions.input === 'nudge' ? '?open=held#held' : ''}`
		);
	const own = { clientId: String(clientId ?? '') };
	const conditions = listConditions(db).map((condition) => ({
		id: condition.id,
		name: condition.name,
		detail: describeConditions(condition)
	}));
	const filter = filterFrom(url.searchParams, clientId);
	const total = countLoneLoads(db, filter);
	const pages = Math.max(1, Math.ceil(total / ROWS));
	const page = Math.min(pages, Math.max(1, Math.trunc(Number(url.searchParams.get('page')) || 1)));
	return {
		where: 'Loads',
		loadForm: await formOf(LoadFields, { ...own, conditions: conditions[0]?.id ?? '' }),
		harForm: await formOf(HarFields, own),
		conditions,
		states: visitorStates(db, clientId).map(({ id, site, state }) => ({ id, name: `${site}: ${state.name}` })),
		waiting: openRequests(db).map(({ id, url: address, conditions, patience, status }) => ({
			id,
			url: address,
			conditions: conditions.name,
			nudged: conditions.input === 'nudge',
			patient: patience,
			status
		})),
		filter: shownFilter(filter),
		page,
		pages,
		total,
		loads: listed(db, filter, (page - 1) * ROWS).map(
			({ id, url: address, conditionId, status, reason, source, startedAt, figures, failedStep, nudged, landed }) => ({
				id,
				landed,
				url: address,
				conditionId,
				status,
				reason,
				source,
				startedAt,
				figures,
				failedStep,
				nudged
			})
		)
	};
};

const shownFilter = ({ words, conditions, status, since }: Required<LoneFilter>) => ({
	words,
	conditions,
	status,
	since
});

function filterFrom(params: URLSearchParams, clientId: number | null): Required<LoneFilter> {
	const param = (name: string) => params.get(name) ?? '';
	return {
		clientId,
		words: param('q'),
		conditions: param('conditions'),
		status: STATUSES.find((status) => status === param('status')) ?? '',
		since: /^\d{4}-\d\d-\d\d$/.test(param('since')) ? param('since') : ''
	};
}

/** With where each ended, of older ones noted now. */
function listed(db: Db, filter: LoneFilter, offset: number) {
	const loads = loneLoads(db, filter, ROWS, offset);
	const isNews = noteLandings(
		db,
		loads.map(({ id }) => id)
	);
	return isNews ? loneLoads(db, filter, ROWS, offset) : loads;
}

export const actions = {
	load: formAction(LoadFields, ({ steps, state, clientId, conditions, ...typed }, { locals }: RequestEvent) => {
		const orderOn = (device: string) =>
			parsed(LoadRequest, {
				...typed,
				conditions: device,
				steps: readAt('steps', () => parseSteps(steps)),
				state: Number(state) || null,
				clientId: Number(clientId) || null
			});
		if (conditions !== BOTH) redirect(303, `/loads?waiting=${requestLoad(locals.db, orderOn(conditions))}`);
		for (const device of DEVICES) requestLoad(locals.db, orderOn(device));
		redirect(303, '/loads');
	}),
	har: formAction(HarFields, async ({ clientId }, { locals }: RequestEvent, body) => {
		const file = body.get('file');
		if (!(file instanceof File) || file.size === 0) throw new NotPossible(422, 'Choose a HAR file.', 'file');
		redirect(303, `/loads/${await locals.runHeavy('importHar', await file.text(), Number(clientId) || null)}`);
	}),
	drop: formAction(ROW, ({ id }, { locals }: RequestEvent) => dropRequest(locals.db, idFrom(id, 'single load'))),
	delete: formAction(ROW, ({ id }, { locals }: RequestEvent) => deleteLoad(locals.db, idFrom(id, 'load')))
};
