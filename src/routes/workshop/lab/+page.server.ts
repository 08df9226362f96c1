import { fail, redirect } from '@sveltejs/kit';
import * as v from 'valibot';
import { NewTrialInput } from '$core/trial/input';
import { getDb } from '$lib/server/context';
import { issuesOf } from '$lib/server/http/api';
import { formAction, textOf } from '$lib/server/http/form';
import { labSheet } from '$lib/server/labs/sheet';
import { createTrial, startTrial } from '$lib/server/trials/commands';

/** Rounds of a trial that measures the noise floor (house). */
const ROUNDS = 12;

export const load = () => ({ where: 'Workshop › The lab', ...labSheet(getDb()) });

export const actions = {
	/** One page against itself, under the chosen conditions. */
	noise: formAction((form) => {
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
		const id = createTrial(getDb(), asked.output);
		startTrial(getDb(), id);
		redirect(303, `/trials/${id}`);
	})
};
