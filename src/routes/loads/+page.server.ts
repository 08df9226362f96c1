import { fail, redirect } from '@sveltejs/kit';
import * as v from 'valibot';
import { describeConditions } from '../../core/load/conditions';
import { parseSteps, type Step } from '../../core/load/steps';
import { issuesOf } from '$lib/server/access/api';
import { getDb } from '$lib/server/context';
import { listConditions } from '$lib/server/db/conditions';
import { deleteLoneLoad, loneLoads } from '$lib/server/db/loads';
import { dropSingle, findSingle, listSingles } from '$lib/server/db/singles';
import { askForLoad, importHar, SingleInput } from '$lib/server/queue/singles';
import { NotPossible } from '$lib/server/queue/trials';

export const load = async ({ parent, url }) => {
	const { clientId } = await parent();
	const db = getDb();
	const awaited = findSingle(db, Number(url.searchParams.get('waiting')) || 0);
	if (awaited?.loadId) redirect(303, `/loads/${awaited.loadId}${awaited.conditions.input === 'nudge' ? '#held' : ''}`);
	return {
		where: 'Loads',
		clientId,
		conditions: listConditions(db).map((one) => ({ id: one.id, name: one.name, detail: describeConditions(one) })),
		waiting: listSingles(db, { open: true }).map(({ id, url: address, conditions, status }) => ({ id, url: address, conditions: conditions.name, nudged: conditions.input === 'nudge', status })),
		loads: loneLoads(db, clientId).map(({ id, url: address, conditionId, status, reason, source, startedAt, figures, failedStep, nudged }) => ({
			id, url: address, conditionId, status, reason, source, startedAt, figures, failedStep, nudged
		}))
	};
};

const problem = (path: string, message: string) => ({ issues: [{ path, message }] });

export const actions = {
	load: async ({ request }) => {
		const form = await request.formData();
		const values = { url: String(form.get('url') ?? ''), conditions: String(form.get('conditions') ?? ''), nudge: form.has('nudge'), repeat: form.has('repeat'), steps: String(form.get('steps') ?? '') };
		let steps: Step[];
		try {
			steps = parseSteps(values.steps);
		} catch (error) {
			return fail(422, { values, ...problem('steps', (error as Error).message) });
		}
		const result = v.safeParse(SingleInput, { ...values, steps, clientId: Number(form.get('clientId')) || null });
		if (!result.success) return fail(422, { values, issues: issuesOf(result.issues) });
		let id: number;
		try {
			id = askForLoad(getDb(), result.output);
		} catch (error) {
			if (error instanceof NotPossible) return fail(error.status, { values, ...problem(error.path ?? '', error.message) });
			throw error;
		}
		redirect(303, `/loads?waiting=${id}`);
	},
	har: async ({ request }) => {
		const form = await request.formData();
		const file = form.get('file');
		if (!(file instanceof File) || file.size === 0) return fail(422, problem('file', 'Choose a HAR file.'));
		let id: number;
		try {
			id = importHar(getDb(), await file.text(), Number(form.get('clientId')) || null);
		} catch (error) {
			if (error instanceof NotPossible) return fail(error.status, problem('file', error.message));
			throw error;
		}
		redirect(303, `/loads/${id}`);
	},
	drop: async ({ request }) => {
		const id = Number((await request.formData()).get('id'));
		if (!dropSingle(getDb(), id)) return fail(409, problem('', 'That load has begun already and will end by itself.'));
		return { issues: [] };
	},
	delete: async ({ request }) => {
		deleteLoneLoad(getDb(), Number((await request.formData()).get('id')));
		return { issues: [] };
	}
};
