import { fail, redirect } from '@sveltejs/kit';
import * as v from 'valibot';
import { NewTrialInput } from '$core/trial/design/input';
import { issuesOf } from '$lib/server/http/api';
import { formAction, textOf } from '$lib/server/http/form';
import { labSheet } from '$lib/server/desk/labSheet';
import { createTrial, startTrial } from '$lib/server/rooms/trials/commands';

/** Rounds of a trial that measures the noise floor (house). */
const ROUNDS = 12;

export const load = ({ locals }) => ({ where: 'Workshop › The lab', ...labSheet(locals.db) });

export const actions = {
	/** One page against itself, under the chosen conditions. */
	noise: formAction((form, { locals }) => {
		const url = textOf(form, 'url');
		const conditions = form.getAll('conditions').map(String);
		const asked = v.safeParse(NewTrialInput, {
			question: 'How far apart are two runs of the same page on this machine?',
			kind: 'same-page',
			arms: [
				{ name: 'First run', url, baseline: true },
				{ name: 'Second run', url, baseline: false }
			],
			conditions,
			rounds: ROUNDS,
			warmups: 1
		});
		if (!asked.success) return fail(422, { typed: url, problem: issuesOf(asked.issues)[0]!.message });
		const id = createTrial(locals.db, asked.output);
		startTrial(locals.db, id);
		redirect(303, `/trials/${id}`);
	})
};
