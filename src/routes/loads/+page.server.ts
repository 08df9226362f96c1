import { fail, redirect } from '@sveltejs/kit';
import * as v from 'valibot';
import { describeConditions } from '$core/load/conditions/conditions';
import { parseSteps, type Step } from '$core/load/journey/steps';
import { idFrom, issuesOf, type Issue } from '$lib/server/http/api';
import { formAction, textOf } from '$lib/server/http/form';
import { listConditions } from '$lib/server/rooms/conditions/saved';
import { visitorStates } from '$lib/server/rooms/clients/visitorStates';
import type { Db } from '$lib/server/base/db/connection';
import { noteLandings } from '$lib/server/rooms/loads/landings';
import { countLoneLoads, loneLoads } from '$lib/server/rooms/loads/loads';
import { findRequest, openRequests } from '$lib/server/rooms/loads/requested';
import { deleteLoad, requestLoad, LoadRequest } from '$lib/server/rooms/loads/commands';
import { dropRequest } from '$lib/server/rooms/trials/progress';
import { NotPossible } from '$lib/server/base/refusal';

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
	const total = countLoneLoads(db, clientId);
	const pages = Math.max(1, Math.ceil(total / ROWS));
	const page = Math.min(pages, Math.max(1, Math.trunc(Number(url.searchParams.get('page')) || 1)));
	return {
		where: 'Loads',
		clientId,
		conditions: listConditions(db).map((one) => ({ id: one.id, name: one.name, detail: describeConditions(one) })),
		states: visitorStates(db, clientId).map(({ id, site, state }) => ({ id, name: `${site}: ${state.name}` })),
		waiting: openRequests(db).map(({ id, url: address, conditions, patience, status }) => ({
			id,
			url: address,
			conditions: conditions.name,
			nudged: conditions.input === 'nudge',
			patient: patience,
			status
		})),
		page,
		pages,
		total,
		loads: listed(db, clientId, (page - 1) * ROWS).map(
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

const problem = (path: string, message: string) => ({ issues: [{ path, message }] });

function valuesOf(form: FormData) {
	const text = (name: string) => textOf(form, name);
	return {
		url: text('url'),
		conditions: text('conditions'),
		nudge: form.has('nudge'),
		patience: form.has('patience'),
		repeat: form.has('repeat'),
		steps: text('steps'),
		state: Number(text('state')) || null
	};
}

const clientOf = (form: FormData) => Number(textOf(form, 'clientId')) || null;

/** With where each ended, of older ones noted now. */
function listed(db: Db, clientId: number | null, offset: number) {
	const loads = loneLoads(db, clientId, ROWS, offset);
	const isNews = noteLandings(
		db,
		loads.map(({ id }) => id)
	);
	return isNews ? loneLoads(db, clientId, ROWS, offset) : loads;
}

export const actions = {
	load: formAction((form, { locals }) => {
		const values = valuesOf(form);
		const refuse = (status: number, issues: Issue[]) => fail(status, { values, issues });
		let steps: Step[];
		try {
			steps = parseSteps(values.steps);
		} catch (error) {
			return refuse(422, [{ path: 'steps', message: (error as Error).message }]);
		}
		const result = v.safeParse(LoadRequest, { ...values, steps, clientId: clientOf(form) });
		if (!result.success) return refuse(422, issuesOf(result.issues));
		let id: number;
		try {
			id = requestLoad(locals.db, result.output);
		} catch (error) {
			if (error instanceof NotPossible)
				return refuse(error.status, [{ path: error.path ?? '', message: error.message }]);
			throw error;
		}
		redirect(303, `/loads?waiting=${id}`);
	}),
	har: formAction(async (form, { locals }) => {
		const file = form.get('file');
		if (!(file instanceof File) || file.size === 0) return fail(422, problem('file', 'Choose a HAR file.'));
		redirect(303, `/loads/${await locals.runHeavy('importHar', await file.text(), clientOf(form))}`);
	}),
	drop: formAction((form, { locals }) => {
		dropRequest(locals.db, idFrom(textOf(form, 'id'), 'single load'));
		return { issues: [] as Issue[] };
	}),
	delete: formAction((form, { locals }) => {
		deleteLoad(locals.db, idFrom(textOf(form, 'id'), 'load'));
		return { issues: [] as Issue[] };
	})
};
