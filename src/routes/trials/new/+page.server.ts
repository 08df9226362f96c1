import { fail, redirect } from '@sveltejs/kit';
import * as v from 'valibot';
import { NewTrialInput } from '../../../core/trial/input';
import { BUILT_IN_CONDITIONS, describeConditions } from '../../../core/load/conditions';
import { issuesOf } from '$lib/server/access/api';
import { getDb } from '$lib/server/context';
import { createTrial, NotPossible, startTrial } from '$lib/server/queue/trials';

export const load = async ({ parent }) => {
	const { clientId } = await parent();
	return {
		where: 'Trials › New trial',
		clientId,
		conditions: BUILT_IN_CONDITIONS.map((conditions) => ({
			id: conditions.id,
			name: conditions.name,
			summary: conditions.summary,
			detail: describeConditions(conditions)
		}))
	};
};

function valuesOf(form: FormData) {
	const names = form.getAll('arm-name').map(String);
	const urls = form.getAll('arm-url').map(String);
	const number = (name: string) => (String(form.get(name) ?? '').trim() === '' ? NaN : Number(form.get(name)));
	const baseline = Number(form.get('baseline') ?? 0);
	return {
		question: String(form.get('question') ?? ''),
		kind: 'side-by-side',
		arms: names.map((name, i) => ({ name, url: urls[i] ?? '', baseline: i === baseline })),
		conditions: form.getAll('conditions').map(String),
		rounds: number('rounds'),
		warmups: number('warmups'),
		clientId: Number(form.get('clientId')) || null
	};
}

export const actions = {
	default: async ({ request }) => {
		const form = await request.formData();
		const values = valuesOf(form);
		const result = v.safeParse(NewTrialInput, values);
		if (!result.success) return fail(422, { values, issues: issuesOf(result.issues) });
		let id: number;
		try {
			id = createTrial(getDb(), result.output);
			if (form.get('then') !== 'draft') startTrial(getDb(), id);
		} catch (error) {
			if (error instanceof NotPossible)
				return fail(error.status, { values, issues: [{ path: error.path ?? '', message: error.message }] });
			throw error;
		}
		redirect(303, `/trials/${id}`);
	}
};
